import type { MigrationInterface, QueryRunner } from 'typeorm'

const ascii = (length: number) => `varchar(${length}) CHARACTER SET "ascii" COLLATE "ascii_bin"`

/** The keys by which firms sign packs. */
export class SigningKeys1764700000000 implements MigrationInterface {
  name = 'SigningKeys1764700000000'

  async up(runner: QueryRunner): Promise<void> {
    const parts = [
      `\`firm_id\` ${ascii(36)} NOT NULL`,
      `\`public_key\` ${ascii(44)} NOT NULL`,
      `\`private_key\` ${ascii(200)} NOT NULL`,
      '`made_at` datetime(3) NOT NULL',
      'PRIMARY KEY (`firm_id`)',
      'CONSTRAINT `signing_key_firm` FOREIGN KEY (`firm_id`) REFERENCES `firm`(`id`) ON DELETE NO ACTION ON UPDATE NO ACTION',
    ]
    await runner.query(`CREATE TABLE IF NOT EXISTS \`signing_key\` (${parts.join(', ')}) ENGINE=InnoDB`)
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `signing_key`')
  }
}

import type { MigrationInterface, QueryRunner } from 'typeorm'

const ascii = (length: number) => `varchar(${length}) CHARACTER SET "ascii" COLLATE "ascii_bin"`

/** What was said of catalogue entries as a whole: retired, for practice only, recalled. Nothing of it is ever changed. */
export class CatalogueActs1764600000000 implements MigrationInterface {
  name = 'CatalogueActs1764600000000'

  async up(runner: QueryRunner): Promise<void> {
    const parts = [
      `\`firm_id\` ${ascii(36)} NOT NULL`,
      `\`id\` ${ascii(36)} NOT NULL`,
      `\`entry_id\` ${ascii(80)} NOT NULL`,
      `\`kind\` ${ascii(12)} NOT NULL`,
      '`said_by` varchar(80) NOT NULL',
      '`said_at` datetime(3) NOT NULL',
      '`body` text NOT NULL',
      'INDEX `catalogue_act_said` (`firm_id`, `said_at`)',
      'PRIMARY KEY (`firm_id`, `id`)',
      'CONSTRAINT `catalogue_act_firm` FOREIGN KEY (`firm_id`) REFERENCES `firm`(`id`) ON DELETE NO ACTION ON UPDATE NO ACTION',
    ]
    await runner.query(`CREATE TABLE IF NOT EXISTS \`catalogue_act\` (${parts.join(', ')}) ENGINE=InnoDB`)
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `catalogue_act`')
  }
}

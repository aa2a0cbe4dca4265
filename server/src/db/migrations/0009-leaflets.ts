import type { MigrationInterface, QueryRunner } from 'typeorm'

const ascii = (length: number) => `varchar(${length}) CHARACTER SET "ascii" COLLATE "ascii_bin"`

/** Leaflets of entries and drafts; their content lies in parts, so that neither a packet nor a line of a backup is too long. */
export class Leaflets1764900000000 implements MigrationInterface {
  name = 'Leaflets1764900000000'

  async up(runner: QueryRunner): Promise<void> {
    const head = [
      `\`firm_id\` ${ascii(36)} NOT NULL`,
      `\`id\` ${ascii(36)} NOT NULL`,
      `\`about\` ${ascii(80)} NOT NULL`,
      '`name` varchar(120) NOT NULL',
      `\`type\` ${ascii(40)} NOT NULL`,
      '`bytes` int UNSIGNED NOT NULL',
      `\`digest\` ${ascii(64)} NOT NULL`,
      '`added_by` varchar(80) NOT NULL',
      '`added_at` datetime(3) NOT NULL',
      'UNIQUE INDEX `leaflet_once` (`firm_id`, `about`, `digest`)',
      'PRIMARY KEY (`firm_id`, `id`)',
      'CONSTRAINT `leaflet_firm` FOREIGN KEY (`firm_id`) REFERENCES `firm`(`id`) ON DELETE NO ACTION ON UPDATE NO ACTION',
    ]
    const part = [
      `\`firm_id\` ${ascii(36)} NOT NULL`,
      `\`leaflet_id\` ${ascii(36)} NOT NULL`,
      '`number` int UNSIGNED NOT NULL',
      '`content` mediumtext NOT NULL',
      'PRIMARY KEY (`firm_id`, `leaflet_id`, `number`)',
      'CONSTRAINT `leaflet_part_of` FOREIGN KEY (`firm_id`, `leaflet_id`) REFERENCES `leaflet`(`firm_id`,`id`) ON DELETE CASCADE ON UPDATE NO ACTION',
    ]
    await runner.query(`CREATE TABLE IF NOT EXISTS \`leaflet\` (${head.join(', ')}) ENGINE=InnoDB`)
    await runner.query(`CREATE TABLE IF NOT EXISTS \`leaflet_part\` (${part.join(', ')}) ENGINE=InnoDB`)
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `leaflet_part`')
    await runner.query('DROP TABLE `leaflet`')
  }
}

import type { MigrationInterface, QueryRunner } from 'typeorm'

const ascii = (length: number) => `varchar(${length}) CHARACTER SET "ascii" COLLATE "ascii_bin"`

/** When which version of an entry came to be offered, and by whom. Nothing of it is ever changed. */
export class CatalogueVersions1764800000000 implements MigrationInterface {
  name = 'CatalogueVersions1764800000000'

  async up(runner: QueryRunner): Promise<void> {
    const parts = [
      `\`firm_id\` ${ascii(36)} NOT NULL`,
      `\`id\` ${ascii(36)} NOT NULL`,
      `\`entry_id\` ${ascii(80)} NOT NULL`,
      `\`hash\` ${ascii(64)} NOT NULL`,
      `\`how\` ${ascii(12)} NOT NULL`,
      '`offered_by` varchar(80) NOT NULL',
      '`offered_at` datetime(3) NOT NULL',
      '`why` varchar(300) NOT NULL',
      'INDEX `catalogue_version_entry` (`firm_id`, `entry_id`, `offered_at`)',
      'PRIMARY KEY (`firm_id`, `id`)',
      'CONSTRAINT `catalogue_version_firm` FOREIGN KEY (`firm_id`) REFERENCES `firm`(`id`) ON DELETE NO ACTION ON UPDATE NO ACTION',
    ]
    await runner.query(`CREATE TABLE IF NOT EXISTS \`catalogue_version\` (${parts.join(', ')}) ENGINE=InnoDB`)
    // What was published before tells it by its draft. A second try after a fault begins anew: the table is this migration's own.
    await runner.query('DELETE FROM `catalogue_version`')
    await runner.query(
      'INSERT INTO `catalogue_version` (`firm_id`, `id`, `entry_id`, `hash`, `how`, `offered_by`, `offered_at`, `why`)' +
        " SELECT `firm_id`, `id`, `entry_id`, `hash`, 'published', `changed_by`, `changed_at`, `why` FROM `draft`" +
        " WHERE `state` = 'published' AND `entry_id` IS NOT NULL AND `hash` IS NOT NULL",
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE `catalogue_version`')
  }
}

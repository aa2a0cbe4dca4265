import type { MigrationInterface, QueryRunner } from 'typeorm'

const ascii = (length: number) => `varchar(${length}) CHARACTER SET "ascii" COLLATE "ascii_bin"`

const columns: readonly (readonly [string, string, string])[] = [
  ['person', 'rights', `${ascii(60)} NOT NULL DEFAULT ''`],
  ['person', 'removed_at', 'datetime(3) NULL'],
  ['session', 'device', "varchar(200) NOT NULL DEFAULT ''"],
  ['session', 'used_at', 'datetime(3) NULL'],
]
const tables: readonly (readonly [string, readonly string[]])[] = [
  [
    'link',
    [
      `\`token_hash\` ${ascii(64)} NOT NULL`,
      `\`kind\` ${ascii(12)} NOT NULL`,
      `\`firm_id\` ${ascii(36)} NULL`,
      `\`person_id\` ${ascii(36)} NULL`,
      `\`role\` ${ascii(12)} NOT NULL`,
      '`name` varchar(80) NOT NULL',
      '`created_at` datetime(3) NOT NULL',
      '`expires_at` datetime(3) NOT NULL',
      'INDEX `link_firm` (`firm_id`)',
      'INDEX `link_person` (`person_id`)',
      'PRIMARY KEY (`token_hash`)',
      'CONSTRAINT `link_firm_key` FOREIGN KEY (`firm_id`) REFERENCES `firm`(`id`) ON DELETE CASCADE ON UPDATE NO ACTION',
      'CONSTRAINT `link_person_key` FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON DELETE CASCADE ON UPDATE NO ACTION',
    ],
  ],
  [
    'attempt',
    [
      `\`key_hash\` ${ascii(64)} NOT NULL`,
      '`failures` int UNSIGNED NOT NULL',
      '`changed_at` datetime(3) NOT NULL',
      'PRIMARY KEY (`key_hash`)',
    ],
  ],
]

/** People who leave, their rights and sessions, links that work once, and failed attempts to sign in. */
export class PeopleAndLinks1764300000000 implements MigrationInterface {
  name = 'PeopleAndLinks1764300000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const [table, column, type] of columns)
      await runner.query(`ALTER TABLE \`${table}\` ADD COLUMN IF NOT EXISTS \`${column}\` ${type}`)
    for (const [name, parts] of tables)
      await runner.query(`CREATE TABLE IF NOT EXISTS \`${name}\` (${parts.join(', ')}) ENGINE=InnoDB`)
    // Installers could take packs in and keep what headings mean; from now on these are rights, which those who are here keep.
    await runner.query(
      "UPDATE `person` SET `rights` = 'catalogue,columns' WHERE `role` = 'installer' AND `rights` = ''",
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [name] of [...tables].reverse()) await runner.query(`DROP TABLE \`${name}\``)
    for (const [table, column] of columns)
      await runner.query(`ALTER TABLE \`${table}\` DROP COLUMN \`${column}\``)
  }
}

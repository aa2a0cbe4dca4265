import type { MigrationInterface, QueryRunner } from 'typeorm'

const ascii = (length: number) => `varchar(${length}) CHARACTER SET "ascii" COLLATE "ascii_bin"`

const tables: readonly (readonly [string, readonly string[]])[] = [
  [
    'draft',
    [
      `\`firm_id\` ${ascii(36)} NOT NULL`,
      `\`id\` ${ascii(36)} NOT NULL`,
      '`revision` int UNSIGNED NOT NULL',
      `\`kind\` ${ascii(12)} NOT NULL`,
      '`name` varchar(120) NOT NULL',
      `\`corrects\` ${ascii(80)} NULL`,
      `\`state\` ${ascii(12)} NOT NULL`,
      `\`entry_id\` ${ascii(80)} NULL`,
      `\`hash\` ${ascii(64)} NULL`,
      '`why` varchar(300) NOT NULL',
      '`changed_by` varchar(80) NOT NULL',
      '`created_at` datetime(3) NOT NULL',
      '`changed_at` datetime(3) NOT NULL',
      'INDEX `draft_changed` (`firm_id`, `changed_at`)',
      'PRIMARY KEY (`firm_id`, `id`)',
      'CONSTRAINT `draft_firm` FOREIGN KEY (`firm_id`) REFERENCES `firm`(`id`) ON DELETE NO ACTION ON UPDATE NO ACTION',
    ],
  ],
  [
    'draft_edit',
    [
      `\`firm_id\` ${ascii(36)} NOT NULL`,
      `\`draft_id\` ${ascii(36)} NOT NULL`,
      '`revision` int UNSIGNED NOT NULL',
      `\`edit_id\` ${ascii(40)} NOT NULL`,
      '`taken_at` datetime(3) NOT NULL',
      '`body` longtext NOT NULL',
      'UNIQUE INDEX `draft_edit_once` (`firm_id`, `draft_id`, `edit_id`)',
      'PRIMARY KEY (`firm_id`, `draft_id`, `revision`)',
      'CONSTRAINT `draft_edit_draft` FOREIGN KEY (`firm_id`, `draft_id`) REFERENCES `draft`(`firm_id`, `id`) ON DELETE NO ACTION ON UPDATE NO ACTION',
    ],
  ],
]

/** Catalogue entries while they are described, each with its journal. */
export class Drafts1764500000000 implements MigrationInterface {
  name = 'Drafts1764500000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const [name, parts] of tables)
      await runner.query(`CREATE TABLE IF NOT EXISTS \`${name}\` (${parts.join(', ')}) ENGINE=InnoDB`)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [name] of [...tables].reverse()) await runner.query(`DROP TABLE \`${name}\``)
  }
}

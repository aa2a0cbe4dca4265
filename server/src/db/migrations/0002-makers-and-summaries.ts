import type { MigrationInterface, QueryRunner } from 'typeorm'

const ascii = (length: number) => `varchar(${length}) CHARACTER SET "ascii" COLLATE "ascii_bin"`

const columns: readonly (readonly [string, string, string])[] = [
  ['firm', 'rules_revision', "int UNSIGNED NOT NULL DEFAULT '0'"],
  ['job', 'summary_rules', "int UNSIGNED NOT NULL DEFAULT '0'"],
  ['job', 'summary_build', `${ascii(60)} NOT NULL DEFAULT ''`],
  ['job', 'summary_due', 'datetime(3) NULL'],
  ['job', 'claimed_until', 'datetime(3) NULL'],
  ['job_edit', 'made_by_id', `${ascii(36)} NULL`],
  ['catalogue_entry', 'form', "int UNSIGNED NOT NULL DEFAULT '1'"],
]

/** Makers by their id, the pack form of entries, and what a job's summary holds for. */
export class MakersAndSummaries1764200000000 implements MigrationInterface {
  name = 'MakersAndSummaries1764200000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const [table, column, type] of columns)
      await runner.query(`ALTER TABLE \`${table}\` ADD COLUMN IF NOT EXISTS \`${column}\` ${type}`)
    // The count stood in the firm's settings; from now on it stands where a job's summary is compared with it.
    await runner.query(
      "UPDATE `firm` SET `rules_revision` = COALESCE(JSON_VALUE(`settings`, '$.houseRulesRevision'), 0)",
    )
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [table, column] of columns)
      await runner.query(`ALTER TABLE \`${table}\` DROP COLUMN \`${column}\``)
  }
}

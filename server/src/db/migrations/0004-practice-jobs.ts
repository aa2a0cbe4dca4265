import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Whether a job is practice, beside its name: lists say so, and figures of real jobs leave it out. Jobs of before are real. */
export class PracticeJobs1764400000000 implements MigrationInterface {
  name = 'PracticeJobs1764400000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE `job` ADD COLUMN IF NOT EXISTS `practice` tinyint(1) NOT NULL DEFAULT 0')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE `job` DROP COLUMN `practice`')
  }
}

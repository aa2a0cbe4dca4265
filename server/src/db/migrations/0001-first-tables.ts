import type { MigrationInterface, QueryRunner } from 'typeorm'

const id = (name: string, length = 36) =>
  `\`${name}\` varchar(${length}) CHARACTER SET "ascii" COLLATE "ascii_bin" NOT NULL`
const time = (name: string) => `\`${name}\` datetime(3) NOT NULL`
const count = (name: string) => `\`${name}\` int UNSIGNED NOT NULL`
const words = (name: string, length: number) => `\`${name}\` varchar(${length}) NOT NULL`
const long = (name: string) => `\`${name}\` longtext NOT NULL`
const ofJob = (name: string) =>
  `CONSTRAINT \`${name}\` FOREIGN KEY (\`firm_id\`, \`job_id\`) REFERENCES \`job\`(\`firm_id\`, \`id\`) ON DELETE NO ACTION ON UPDATE NO ACTION`
const ofFirm = (name: string) =>
  `CONSTRAINT \`${name}\` FOREIGN KEY (\`firm_id\`) REFERENCES \`firm\`(\`id\`) ON DELETE NO ACTION ON UPDATE NO ACTION`

const tables: readonly (readonly [string, readonly string[]])[] = [
  ['firm', [id('id'), words('name', 120), long('settings'), time('created_at'), 'PRIMARY KEY (`id`)']],
  [
    'person',
    [
      id('id'),
      id('firm_id'),
      words('login', 80),
      words('name', 80),
      id('role', 12),
      id('password', 200),
      time('created_at'),
      'UNIQUE INDEX `person_login` (`login`)',
      'UNIQUE INDEX `person_name` (`firm_id`, `name`)',
      'PRIMARY KEY (`id`)',
      ofFirm('person_firm'),
    ],
  ],
  [
    'session',
    [
      id('token_hash', 64),
      id('person_id'),
      time('created_at'),
      time('expires_at'),
      'INDEX `session_person` (`person_id`)',
      'PRIMARY KEY (`token_hash`)',
      'CONSTRAINT `session_person_key` FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON DELETE CASCADE ON UPDATE NO ACTION',
    ],
  ],
  [
    'job',
    [
      id('firm_id'),
      id('id'),
      count('revision'),
      words('name', 120),
      words('address', 200),
      long('summary'),
      count('summary_revision'),
      time('created_at'),
      time('changed_at'),
      'INDEX `job_changed` (`firm_id`, `changed_at`)',
      'PRIMARY KEY (`firm_id`, `id`)',
      ofFirm('job_firm'),
    ],
  ],
  [
    'job_snapshot',
    [
      id('firm_id'),
      id('job_id'),
      count('revision'),
      long('document'),
      'PRIMARY KEY (`firm_id`, `job_id`, `revision`)',
      ofJob('job_snapshot_job'),
    ],
  ],
  [
    'job_edit',
    [
      id('firm_id'),
      id('job_id'),
      count('revision'),
      id('edit_id', 40),
      id('kind', 60),
      words('made_by', 80),
      time('taken_at'),
      long('body'),
      'UNIQUE INDEX `job_edit_once` (`firm_id`, `job_id`, `edit_id`)',
      'PRIMARY KEY (`firm_id`, `job_id`, `revision`)',
      ofJob('job_edit_job'),
    ],
  ],
  [
    'transmitter',
    [
      id('firm_id'),
      id('serial', 40),
      id('job_id'),
      'INDEX `transmitter_job` (`firm_id`, `job_id`)',
      'PRIMARY KEY (`firm_id`, `serial`, `job_id`)',
      ofJob('transmitter_job_key'),
    ],
  ],
  [
    'catalogue_entry',
    [
      id('firm_id'),
      id('hash', 64),
      id('entry_id', 80),
      '`current` tinyint NOT NULL',
      long('body'),
      'INDEX `catalogue_entry_id` (`firm_id`, `entry_id`)',
      'PRIMARY KEY (`firm_id`, `hash`)',
      ofFirm('catalogue_entry_firm'),
    ],
  ],
]

/** The first tables. */
export class FirstTables1764000000000 implements MigrationInterface {
  name = 'FirstTables1764000000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const [name, parts] of tables)
      // A table's making cannot be taken back with its transaction: a migration broken off is done again over what it left.
      await runner.query(`CREATE TABLE IF NOT EXISTS \`${name}\` (${parts.join(', ')}) ENGINE=InnoDB`)
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [name] of [...tables].reverse()) await runner.query(`DROP TABLE \`${name}\``)
  }
}

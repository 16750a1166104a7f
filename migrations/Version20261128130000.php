<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Tables as their entities map them, made by Doctrine's comparison; SQLite changes a table by making it anew. */
final class Version20261128130000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Versions of what people edit, leases of jobs, names of requests, what later kinds of observations need';
    }

    public function up(Schema $schema): void
    {
        // Numbers that were given once are not given again: the ledger may bring their rows back.
        $this->addSql('CREATE TEMPORARY TABLE numbers AS SELECT name, seq FROM sqlite_sequence');
        foreach ([
            'CREATE TEMPORARY TABLE __temp__result AS SELECT id, project_id, slot, kind, label, run, inputs, settings, '
                .'summary, output, author_name, created_at FROM result',
            'DROP TABLE result',
            'CREATE TABLE result (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL, slot '
                .'VARCHAR(80) NOT NULL, kind VARCHAR(30) NOT NULL, label VARCHAR(200) NOT NULL, run INTEGER NOT NULL, inputs '
                .'CLOB NOT NULL, settings CLOB NOT NULL, summary CLOB NOT NULL, output VARCHAR(64) NOT NULL, author_name '
                .'VARCHAR(160) NOT NULL, created_at DATETIME NOT NULL, FOREIGN KEY (project_id) REFERENCES project (id) ON '
                .'DELETE CASCADE)',
            'INSERT INTO result (id, project_id, slot, kind, label, run, inputs, settings, summary, output, author_name, '
                .'created_at) SELECT id, project_id, slot, kind, label, run, inputs, settings, summary, output, author_name, '
                .'created_at FROM __temp__result',
            'DROP TABLE __temp__result',
            'CREATE INDEX result_slot ON result (project_id, slot)',
            'CREATE INDEX result_project ON result (project_id)',
            'CREATE TEMPORARY TABLE __temp__surface AS SELECT id, project_id, name, definition FROM surface',
            'DROP TABLE surface',
            'CREATE TABLE surface (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL, name '
                .'VARCHAR(120) NOT NULL, definition CLOB NOT NULL, version INTEGER DEFAULT 0 NOT NULL, FOREIGN KEY (project_id) '
                .'REFERENCES project (id) ON DELETE CASCADE)',
            'INSERT INTO surface (id, project_id, name, definition) SELECT id, project_id, name, definition FROM '
                .'__temp__surface',
            'DROP TABLE __temp__surface',
            'CREATE UNIQUE INDEX surface_name ON surface (project_id, name)',
            'CREATE INDEX surface_project ON surface (project_id)',
            'CREATE TEMPORARY TABLE __temp__ledger_entry AS SELECT id, project_id, seq, operation, title, detail, changes, '
                .'change_count, author_name, at, undone_by, undoes FROM ledger_entry',
            'DROP TABLE ledger_entry',
            'CREATE TABLE ledger_entry (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL, seq '
                .'INTEGER NOT NULL, operation VARCHAR(60) NOT NULL, title VARCHAR(400) NOT NULL, detail CLOB NOT NULL, changes '
                .'VARCHAR(64) NOT NULL, change_count INTEGER NOT NULL, author_name VARCHAR(160) NOT NULL, at DATETIME NOT NULL, '
                .'undone_by INTEGER DEFAULT NULL, undoes INTEGER DEFAULT NULL, request_key VARCHAR(80) DEFAULT NULL, FOREIGN KEY '
                .'(project_id) REFERENCES project (id) ON DELETE CASCADE)',
            'INSERT INTO ledger_entry (id, project_id, seq, operation, title, detail, changes, change_count, author_name, '
                .'at, undone_by, undoes) SELECT id, project_id, seq, operation, title, detail, changes, change_count, '
                .'author_name, at, undone_by, undoes FROM __temp__ledger_entry',
            'DROP TABLE __temp__ledger_entry',
            'CREATE UNIQUE INDEX ledger_seq ON ledger_entry (project_id, seq)',
            'CREATE UNIQUE INDEX ledger_request ON ledger_entry (project_id, request_key)',
            'CREATE INDEX ledger_project ON ledger_entry (project_id)',
            'CREATE TEMPORARY TABLE __temp__point AS SELECT id, project_id, name, role, source, code, e, n, h, given_e, '
                .'given_n, given_h, held, sd_e, sd_n, sd_h, file_id, line, known FROM point',
            'DROP TABLE point',
            'CREATE TABLE point (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL, name '
                ."VARCHAR(60) NOT NULL, role VARCHAR(20) NOT NULL, source VARCHAR(20) NOT NULL, code VARCHAR(60) DEFAULT '' NOT "
                .'NULL, e DOUBLE PRECISION DEFAULT NULL, n DOUBLE PRECISION DEFAULT NULL, h DOUBLE PRECISION DEFAULT NULL, '
                .'given_e DOUBLE PRECISION DEFAULT NULL, given_n DOUBLE PRECISION DEFAULT NULL, given_h DOUBLE PRECISION DEFAULT '
                ."NULL, held VARCHAR(3) DEFAULT '' NOT NULL, sd_e DOUBLE PRECISION DEFAULT NULL, sd_n DOUBLE PRECISION DEFAULT "
                .'NULL, sd_h DOUBLE PRECISION DEFAULT NULL, file_id INTEGER DEFAULT NULL, line INTEGER DEFAULT NULL, known '
                ."VARCHAR(10) DEFAULT 'global' NOT NULL, version INTEGER DEFAULT 0 NOT NULL, FOREIGN KEY (project_id) REFERENCES "
                .'project (id) ON DELETE CASCADE, FOREIGN KEY (file_id) REFERENCES survey_file (id))',
            'INSERT INTO point (id, project_id, name, role, source, code, e, n, h, given_e, given_n, given_h, held, sd_e, '
                .'sd_n, sd_h, file_id, line, known) SELECT id, project_id, name, role, source, code, e, n, h, given_e, given_n, '
                .'given_h, held, sd_e, sd_n, sd_h, file_id, line, known FROM __temp__point',
            'DROP TABLE __temp__point',
            'CREATE UNIQUE INDEX point_name ON point (project_id, name)',
            'CREATE INDEX point_project ON point (project_id)',
            'CREATE INDEX point_file ON point (file_id)',
            'CREATE TEMPORARY TABLE __temp__observation AS SELECT id, project_id, file_id, line, kind, set_name, from_name, '
                .'to_name, v1, v2, v3, sd, hi, ht, covariance, used, reason, aside_by, aside_at FROM observation',
            'DROP TABLE observation',
            'CREATE TABLE observation (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL, file_id '
                ."INTEGER DEFAULT NULL, line INTEGER DEFAULT NULL, kind VARCHAR(30) NOT NULL, set_name VARCHAR(60) DEFAULT '' "
                .'NOT NULL, from_name VARCHAR(60) NOT NULL, to_name VARCHAR(60) NOT NULL, v1 DOUBLE PRECISION NOT NULL, v2 '
                .'DOUBLE PRECISION DEFAULT NULL, v3 DOUBLE PRECISION DEFAULT NULL, sd DOUBLE PRECISION DEFAULT NULL, hi DOUBLE '
                .'PRECISION DEFAULT 0 NOT NULL, ht DOUBLE PRECISION DEFAULT 0 NOT NULL, covariance CLOB DEFAULT NULL, used '
                ."INTEGER DEFAULT 7 NOT NULL, reason VARCHAR(400) DEFAULT '' NOT NULL, aside_by VARCHAR(160) DEFAULT NULL, "
                .'aside_at DATETIME DEFAULT NULL, back_name VARCHAR(60) DEFAULT NULL, length DOUBLE PRECISION DEFAULT NULL, face '
                .'SMALLINT DEFAULT NULL, round INTEGER DEFAULT NULL, observed_at DATETIME DEFAULT NULL, version INTEGER DEFAULT '
                .'0 NOT NULL, FOREIGN KEY (project_id) REFERENCES project (id) ON DELETE CASCADE, FOREIGN KEY (file_id) '
                .'REFERENCES survey_file (id))',
            'INSERT INTO observation (id, project_id, file_id, line, kind, set_name, from_name, to_name, v1, v2, v3, sd, '
                .'hi, ht, covariance, used, reason, aside_by, aside_at) SELECT id, project_id, file_id, line, kind, set_name, '
                .'from_name, to_name, v1, v2, v3, sd, hi, ht, covariance, used, reason, aside_by, aside_at FROM '
                .'__temp__observation',
            'DROP TABLE __temp__observation',
            'CREATE INDEX observation_project ON observation (project_id)',
            'CREATE INDEX observation_file ON observation (file_id)',
            'CREATE TEMPORARY TABLE __temp__custom_system AS SELECT id, project_id, name, definition, created_at FROM '
                .'custom_system',
            'DROP TABLE custom_system',
            'CREATE TABLE custom_system (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL, name '
                .'VARCHAR(160) NOT NULL, definition CLOB NOT NULL, created_at DATETIME NOT NULL, FOREIGN KEY (project_id) '
                .'REFERENCES project (id) ON DELETE CASCADE)',
            'INSERT INTO custom_system (id, project_id, name, definition, created_at) SELECT id, project_id, name, '
                .'definition, created_at FROM __temp__custom_system',
            'DROP TABLE __temp__custom_system',
            'CREATE UNIQUE INDEX custom_system_name ON custom_system (project_id, name)',
            'CREATE INDEX custom_system_project ON custom_system (project_id)',
            'CREATE TEMPORARY TABLE __temp__grid_file AS SELECT id, project_id, name, kind, origin, sha256, size, info, '
                .'created_at FROM grid_file',
            'DROP TABLE grid_file',
            'CREATE TABLE grid_file (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL, name '
                .'VARCHAR(200) NOT NULL, kind VARCHAR(20) NOT NULL, origin VARCHAR(20) NOT NULL, sha256 VARCHAR(64) NOT NULL, '
                .'size INTEGER NOT NULL, info CLOB NOT NULL, created_at DATETIME NOT NULL, FOREIGN KEY (project_id) REFERENCES '
                .'project (id) ON DELETE CASCADE)',
            'INSERT INTO grid_file (id, project_id, name, kind, origin, sha256, size, info, created_at) SELECT id, '
                .'project_id, name, kind, origin, sha256, size, info, created_at FROM __temp__grid_file',
            'DROP TABLE __temp__grid_file',
            'CREATE UNIQUE INDEX grid_file_name ON grid_file (project_id, name)',
            'CREATE INDEX grid_file_project ON grid_file (project_id)',
            'CREATE TEMPORARY TABLE __temp__localization AS SELECT id, project_id, name, file, created_at FROM localization',
            'DROP TABLE localization',
            'CREATE TABLE localization (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL, name '
                .'VARCHAR(160) NOT NULL, file CLOB NOT NULL, created_at DATETIME NOT NULL, FOREIGN KEY (project_id) REFERENCES '
                .'project (id) ON DELETE CASCADE)',
            'INSERT INTO localization (id, project_id, name, file, created_at) SELECT id, project_id, name, file, '
                .'created_at FROM __temp__localization',
            'DROP TABLE __temp__localization',
            'CREATE UNIQUE INDEX localization_name ON localization (project_id, name)',
            'CREATE INDEX localization_project ON localization (project_id)',
            'CREATE TEMPORARY TABLE __temp__job AS SELECT id, project_id, author_id, kind, title, payload, state, stage, '
                .'progress, error, outcome, worker, attempts, cancel_requested, created_at, started_at, finished_at FROM job',
            'DROP TABLE job',
            'CREATE TABLE job (id VARCHAR(36) NOT NULL, project_id INTEGER NOT NULL, author_id INTEGER NOT NULL, kind '
                .'VARCHAR(40) NOT NULL, title VARCHAR(200) NOT NULL, payload CLOB NOT NULL, state VARCHAR(20) NOT NULL, stage '
                ."VARCHAR(120) DEFAULT '' NOT NULL, progress DOUBLE PRECISION DEFAULT 0 NOT NULL, error CLOB DEFAULT NULL, "
                .'outcome CLOB DEFAULT NULL, worker VARCHAR(80) DEFAULT NULL, attempts INTEGER DEFAULT 0 NOT NULL, '
                .'cancel_requested BOOLEAN DEFAULT 0 NOT NULL, created_at DATETIME NOT NULL, started_at DATETIME DEFAULT NULL, '
                .'finished_at DATETIME DEFAULT NULL, lease_until DATETIME DEFAULT NULL, asked_at DATETIME DEFAULT NULL, '
                .'request_key VARCHAR(80) DEFAULT NULL, PRIMARY KEY (id), FOREIGN KEY (project_id) REFERENCES project (id) ON '
                .'DELETE CASCADE, FOREIGN KEY (author_id) REFERENCES account (id))',
            'INSERT INTO job (id, project_id, author_id, kind, title, payload, state, stage, progress, error, outcome, '
                .'worker, attempts, cancel_requested, created_at, started_at, finished_at) SELECT id, project_id, author_id, '
                .'kind, title, payload, state, stage, progress, error, outcome, worker, attempts, cancel_requested, created_at, '
                .'started_at, finished_at FROM __temp__job',
            'DROP TABLE __temp__job',
            'CREATE INDEX job_project ON job (project_id)',
            'CREATE INDEX job_state ON job (state)',
            'CREATE UNIQUE INDEX job_request ON job (project_id, request_key)',
            'CREATE INDEX job_author ON job (author_id)',
        ] as $sql) {
            $this->addSql($sql);
        }
        $this->addSql('DELETE FROM sqlite_sequence WHERE name IN (SELECT name FROM numbers)');
        $this->addSql('INSERT INTO sqlite_sequence (name, seq) SELECT name, seq FROM numbers');
        $this->addSql('DROP TABLE numbers');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP INDEX ledger_request');
        $this->addSql('DROP INDEX job_request');
        foreach (['surface' => ['version'], 'point' => ['version'], 'ledger_entry' => ['request_key'], 'job' => [
            'lease_until', 'asked_at', 'request_key',
        ],
            'observation' => ['back_name', 'length', 'face', 'round', 'observed_at', 'version']] as $table => $columns) {
            foreach ($columns as $column) {
                $this->addSql("ALTER TABLE $table DROP COLUMN $column");
            }
        }
    }
}

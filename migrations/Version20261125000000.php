<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125000000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Accounts, projects, files, points, observations, surfaces, results, ledger, jobs';
    }

    public function up(Schema $schema): void
    {
        foreach ([
            'CREATE TABLE account (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, username VARCHAR(80) NOT NULL, name '
                .'VARCHAR(160) NOT NULL, password_hash VARCHAR(255) NOT NULL)',
            'CREATE UNIQUE INDEX account_username ON account (username)',
            'CREATE TABLE project (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name VARCHAR(200) NOT NULL, reference '
                .'VARCHAR(60) NOT NULL, heights VARCHAR(20) NOT NULL, revision INTEGER NOT NULL, units CLOB NOT NULL, '
                    .'network_settings CLOB NOT NULL, created_at DATETIME NOT NULL)',
            'CREATE TABLE membership (user_id INTEGER NOT NULL REFERENCES account (id) ON DELETE CASCADE, project_id '
                .'INTEGER NOT NULL REFERENCES project (id) ON DELETE CASCADE, role VARCHAR(20) NOT NULL, PRIMARY KEY '
                    .'(user_id, project_id))',
            'CREATE TABLE survey_file (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL '
                .'REFERENCES project (id) ON DELETE CASCADE, name VARCHAR(255) NOT NULL, sha256 VARCHAR(64) NOT NULL, '
                    ."size INTEGER NOT NULL, kind VARCHAR(30) NOT NULL, state VARCHAR(20) NOT NULL DEFAULT 'waiting', "
                        .'mapping CLOB NOT NULL, records INTEGER NOT NULL DEFAULT 0, left_out INTEGER NOT NULL DEFAULT '
                            .'0, author_id INTEGER NOT NULL REFERENCES account (id), received_at DATETIME NOT NULL, '
                                .'accepted_at DATETIME DEFAULT NULL)',
            'CREATE INDEX survey_file_project ON survey_file (project_id)',
            'CREATE TABLE point (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL REFERENCES '
                .'project (id) ON DELETE CASCADE, name VARCHAR(60) NOT NULL, role VARCHAR(20) NOT NULL, source '
                    ."VARCHAR(20) NOT NULL, code VARCHAR(60) NOT NULL DEFAULT '', e DOUBLE PRECISION DEFAULT NULL, n "
                        .'DOUBLE PRECISION DEFAULT NULL, h DOUBLE PRECISION DEFAULT NULL, given_e DOUBLE PRECISION '
                            .'DEFAULT NULL, given_n DOUBLE PRECISION DEFAULT NULL, given_h DOUBLE PRECISION DEFAULT '
                                ."NULL, held VARCHAR(3) NOT NULL DEFAULT '', sd_e DOUBLE PRECISION DEFAULT NULL, sd_n "
                                    .'DOUBLE PRECISION DEFAULT NULL, sd_h DOUBLE PRECISION DEFAULT NULL, file_id INTEGER '
                                        .'DEFAULT NULL REFERENCES survey_file (id), line INTEGER DEFAULT NULL)',
            'CREATE UNIQUE INDEX point_name ON point (project_id, name)',
            'CREATE TABLE observation (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL '
                .'REFERENCES project (id) ON DELETE CASCADE, file_id INTEGER DEFAULT NULL REFERENCES survey_file (id), '
                    ."line INTEGER DEFAULT NULL, kind VARCHAR(30) NOT NULL, set_name VARCHAR(60) NOT NULL DEFAULT '', "
                        .'from_name VARCHAR(60) NOT NULL, to_name VARCHAR(60) NOT NULL, v1 DOUBLE PRECISION NOT NULL, v2 '
                            .'DOUBLE PRECISION DEFAULT NULL, v3 DOUBLE PRECISION DEFAULT NULL, sd DOUBLE PRECISION '
                                .'DEFAULT NULL, hi DOUBLE PRECISION NOT NULL DEFAULT 0, ht DOUBLE PRECISION NOT NULL '
                                    .'DEFAULT 0, covariance VARCHAR(400) DEFAULT NULL, used INTEGER NOT NULL DEFAULT 7, '
                                        ."reason VARCHAR(400) NOT NULL DEFAULT '', aside_by VARCHAR(160) DEFAULT NULL, "
                                            .'aside_at DATETIME DEFAULT NULL)',
            'CREATE INDEX observation_project ON observation (project_id)',
            'CREATE TABLE surface (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL REFERENCES '
                .'project (id) ON DELETE CASCADE, name VARCHAR(120) NOT NULL, definition CLOB NOT NULL)',
            'CREATE UNIQUE INDEX surface_name ON surface (project_id, name)',
            'CREATE TABLE result (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL REFERENCES '
                .'project (id) ON DELETE CASCADE, slot VARCHAR(80) NOT NULL, kind VARCHAR(30) NOT NULL, label '
                    .'VARCHAR(200) NOT NULL, run INTEGER NOT NULL, inputs CLOB NOT NULL, settings CLOB NOT NULL, summary '
                        .'CLOB NOT NULL, output VARCHAR(64) NOT NULL, author_name VARCHAR(160) NOT NULL, created_at DATETIME NOT NULL)',
            'CREATE INDEX result_slot ON result (project_id, slot)',
            'CREATE TABLE ledger_entry (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL '
                .'REFERENCES project (id) ON DELETE CASCADE, seq INTEGER NOT NULL, operation VARCHAR(60) NOT NULL, title '
                    .'VARCHAR(400) NOT NULL, detail CLOB NOT NULL, changes VARCHAR(64) NOT NULL, change_count INTEGER '
                        .'NOT NULL, author_name VARCHAR(160) NOT NULL, at DATETIME NOT NULL, undone_by INTEGER DEFAULT '
                            .'NULL, undoes INTEGER DEFAULT NULL)',
            'CREATE UNIQUE INDEX ledger_seq ON ledger_entry (project_id, seq)',
            'CREATE TABLE job (id VARCHAR(36) PRIMARY KEY NOT NULL, project_id INTEGER NOT NULL REFERENCES project (id) '
                .'ON DELETE CASCADE, author_id INTEGER NOT NULL REFERENCES account (id), kind VARCHAR(40) NOT NULL, '
                    .'title VARCHAR(200) NOT NULL, payload CLOB NOT NULL, state VARCHAR(20) NOT NULL, stage VARCHAR(120) '
                        ."NOT NULL DEFAULT '', progress DOUBLE PRECISION NOT NULL DEFAULT 0, error CLOB DEFAULT NULL, "
                            .'outcome CLOB DEFAULT NULL, worker VARCHAR(80) DEFAULT NULL, attempts INTEGER NOT NULL '
                                .'DEFAULT 0, cancel_requested BOOLEAN NOT NULL DEFAULT 0, created_at DATETIME NOT NULL, '
                                    .'started_at DATETIME DEFAULT NULL, finished_at DATETIME DEFAULT NULL)',
            'CREATE INDEX job_project ON job (project_id)',
            'CREATE TABLE messenger_messages (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, body CLOB NOT NULL, headers '
                .'CLOB NOT NULL, queue_name VARCHAR(190) NOT NULL, created_at DATETIME NOT NULL, available_at DATETIME '
                    .'NOT NULL, delivered_at DATETIME DEFAULT NULL)',
            'CREATE INDEX messenger_queue ON messenger_messages (queue_name, available_at, delivered_at, id)',
        ] as $sql) {
            $this->addSql($sql);
        }
    }

    public function down(Schema $schema): void
    {
        foreach ([
            'messenger_messages', 'job', 'ledger_entry', 'result', 'surface', 'observation', 'point', 'survey_file',
            'membership', 'project', 'account',
        ] as $table) {
            $this->addSql('DROP TABLE '.$table);
        }
    }
}

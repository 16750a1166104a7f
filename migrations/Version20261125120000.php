<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261125120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Geoid of a project, systems of its own, grid files, localizations, points known only locally, systems used lately';
    }

    public function up(Schema $schema): void
    {
        foreach ([
            "ALTER TABLE project ADD COLUMN geoid VARCHAR(80) NOT NULL DEFAULT ''",
            "ALTER TABLE point ADD COLUMN known VARCHAR(10) NOT NULL DEFAULT 'global'",
            "UPDATE point SET known = 'local' WHERE project_id IN (SELECT id FROM project WHERE reference = 'plane')",
            "ALTER TABLE survey_file ADD COLUMN meaning CLOB NOT NULL DEFAULT '[]'",
            'CREATE TABLE custom_system (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL '
                .'REFERENCES project (id) ON DELETE CASCADE, name VARCHAR(160) NOT NULL, definition CLOB NOT NULL, '
                    .'created_at DATETIME NOT NULL)',
            'CREATE UNIQUE INDEX custom_system_name ON custom_system (project_id, name)',
            'CREATE TABLE grid_file (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL '
                .'REFERENCES project (id) ON DELETE CASCADE, name VARCHAR(200) NOT NULL, kind VARCHAR(20) NOT NULL, '
                    .'origin VARCHAR(20) NOT NULL, sha256 VARCHAR(64) NOT NULL, size INTEGER NOT NULL, info CLOB NOT '
                        .'NULL, created_at DATETIME NOT NULL)',
            'CREATE UNIQUE INDEX grid_file_name ON grid_file (project_id, name)',
            'CREATE TABLE localization (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, project_id INTEGER NOT NULL '
                .'REFERENCES project (id) ON DELETE CASCADE, name VARCHAR(160) NOT NULL, file CLOB NOT NULL, created_at DATETIME NOT NULL)',
            'CREATE UNIQUE INDEX localization_name ON localization (project_id, name)',
            'CREATE TABLE recent_system (user_id INTEGER NOT NULL REFERENCES account (id) ON DELETE CASCADE, code '
                .'VARCHAR(40) NOT NULL, used_at DATETIME NOT NULL, PRIMARY KEY (user_id, code))',
        ] as $sql) {
            $this->addSql($sql);
        }
    }

    public function down(Schema $schema): void
    {
        foreach (['recent_system', 'localization', 'grid_file', 'custom_system'] as $table) {
            $this->addSql('DROP TABLE '.$table);
        }
        $this->addSql('ALTER TABLE survey_file DROP COLUMN meaning');
        $this->addSql('ALTER TABLE point DROP COLUMN known');
        $this->addSql('ALTER TABLE project DROP COLUMN geoid');
    }
}

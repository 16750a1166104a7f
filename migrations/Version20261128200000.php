<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128200000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Corrections of observations; the levelling book';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE correction (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, cause VARCHAR(40) NOT NULL, words '
                .'VARCHAR(300) NOT NULL, '
            .'reason VARCHAR(400) NOT NULL, author VARCHAR(160) NOT NULL, created_at DATETIME NOT NULL, changes CLOB NOT NULL, '
            .'project_id INTEGER NOT NULL, FOREIGN KEY (project_id) REFERENCES project (id) ON DELETE CASCADE)',
        );
        $this->addSql('CREATE INDEX correction_project ON correction (project_id)');
        $this->addSql(
            'CREATE TABLE level_run (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, version INTEGER DEFAULT 0 NOT NULL, '
            .'name VARCHAR(60) NOT NULL, pattern VARCHAR(4) NOT NULL, sights CLOB NOT NULL, project_id INTEGER NOT NULL, '
            .'FOREIGN KEY (project_id) REFERENCES project (id) ON DELETE CASCADE)',
        );
        $this->addSql('CREATE INDEX level_run_project ON level_run (project_id)');
        $this->addSql('CREATE UNIQUE INDEX level_run_name ON level_run (project_id, name)');
        $this->addSql(
            'CREATE TABLE level_book (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, version INTEGER DEFAULT 0 NOT NULL, '
            .'settings CLOB NOT NULL, benchmarks CLOB NOT NULL, project_id INTEGER NOT NULL, '
            .'FOREIGN KEY (project_id) REFERENCES project (id) ON DELETE CASCADE)',
        );
        $this->addSql('CREATE UNIQUE INDEX level_book_project ON level_book (project_id)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE level_book');
        $this->addSql('DROP TABLE level_run');
        $this->addSql('DROP TABLE correction');
    }
}

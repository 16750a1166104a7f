<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129180000 extends AbstractMigration
{
    private const TABLES = [
        'package' => 'FK_DE686795166D1F9C', 'saved_view' => 'FK_SAVED_VIEW', 'sheet' => 'FK_SHEET', 'feature_catalogue' => 'FK_CATALOGUE',
        'gis_set' => 'FK_GIS_SET', 'cad_set' => 'FK_CAD_SET',
    ];

    public function getDescription(): string
    {
        return 'Packages for controllers and machines, views and sheets, feature catalogues; remarks; letterheads';
    }

    public function up(Schema $schema): void
    {
        foreach (self::TABLES as $table => $key) {
            $this->addSql("CREATE TABLE $table (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, definition CLOB NOT NULL, "
                .'version INTEGER DEFAULT 0 NOT NULL, name VARCHAR(80) NOT NULL, project_id INTEGER NOT NULL, '
                ."CONSTRAINT $key FOREIGN KEY (project_id) REFERENCES project (id) "
                .'ON DELETE CASCADE NOT DEFERRABLE INITIALLY IMMEDIATE)');
            $this->addSql("CREATE INDEX {$table}_project ON $table (project_id)");
            $this->addSql("CREATE UNIQUE INDEX {$table}_name ON $table (project_id, name)");
        }
        $this->remarks();
        $this->addSql("ALTER TABLE project ADD COLUMN letterhead VARCHAR(400) DEFAULT '' NOT NULL");
    }

    private function remarks(): void
    {
        $this->addSql('CREATE TABLE remark (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, about VARCHAR(160) NOT NULL, '
            .'text CLOB NOT NULL, answers INTEGER DEFAULT 0 NOT NULL, checks BOOLEAN DEFAULT 0 NOT NULL, '
            ."output VARCHAR(64) DEFAULT '' NOT NULL, "
            .'author VARCHAR(160) NOT NULL, at DATETIME NOT NULL, project_id INTEGER NOT NULL, '
            .'CONSTRAINT FK_REMARK FOREIGN KEY (project_id) REFERENCES project (id) '
            .'ON DELETE CASCADE NOT DEFERRABLE INITIALLY IMMEDIATE)');
        $this->addSql('CREATE INDEX remark_project ON remark (project_id)');
        $this->addSql('CREATE INDEX remark_about ON remark (project_id, about)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE project DROP COLUMN letterhead');
        $this->addSql('DROP TABLE remark');
        foreach (array_keys(self::TABLES) as $table) {
            $this->addSql("DROP TABLE $table");
        }
    }
}

<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129180000 extends AbstractMigration
{
    private const TABLES = [
        'package' => 'FK_DE686795166D1F9C', 'saved_view' => 'FK_SAVED_VIEW', 'sheet' => 'FK_SHEET', 'feature_catalogue' => 'FK_CATALOGUE',
    ];

    public function getDescription(): string
    {
        return 'Packages for controllers and machines, views and sheets, feature catalogues';
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
    }

    public function down(Schema $schema): void
    {
        foreach (array_keys(self::TABLES) as $table) {
            $this->addSql("DROP TABLE $table");
        }
    }
}

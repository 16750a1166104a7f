<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129180000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Packages for controllers and machines';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE package (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, definition CLOB NOT NULL, '
            .'version INTEGER DEFAULT 0 NOT NULL, name VARCHAR(80) NOT NULL, project_id INTEGER NOT NULL, '
            .'CONSTRAINT FK_DE686795166D1F9C FOREIGN KEY (project_id) REFERENCES project (id) '
            .'ON DELETE CASCADE NOT DEFERRABLE INITIALLY IMMEDIATE)');
        $this->addSql('CREATE INDEX package_project ON package (project_id)');
        $this->addSql('CREATE UNIQUE INDEX package_name ON package (project_id, name)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE package');
    }
}

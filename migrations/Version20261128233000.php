<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128233000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Networks that are to be measured';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE network_plan (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, version INTEGER DEFAULT 0 NOT NULL, '
            .'marks CLOB NOT NULL, sights CLOB NOT NULL, settings CLOB NOT NULL, project_id INTEGER NOT NULL, '
            .'FOREIGN KEY (project_id) REFERENCES project (id) ON DELETE CASCADE)',
        );
        $this->addSql('CREATE UNIQUE INDEX network_plan_project ON network_plan (project_id)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE network_plan');
    }
}

<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129030000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'GNSS occupations';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE occupation (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, '
            ."height_kind VARCHAR(20) DEFAULT 'vertical' NOT NULL, "
            .'height_value DOUBLE PRECISION DEFAULT 0 NOT NULL, height_radius DOUBLE PRECISION DEFAULT 0 NOT NULL, '
            ."height_above DOUBLE PRECISION DEFAULT 0 NOT NULL, antenna VARCHAR(60) DEFAULT '' NOT NULL, moves BOOLEAN DEFAULT 0 NOT NULL, "
            .'trim_from DOUBLE PRECISION DEFAULT NULL, trim_to DOUBLE PRECISION DEFAULT NULL, version INTEGER DEFAULT 0 NOT NULL, '
            .'marker VARCHAR(60) NOT NULL, project_id INTEGER NOT NULL, file_id INTEGER NOT NULL, '
            .'CONSTRAINT FK_2F87D51166D1F9C FOREIGN KEY (project_id) REFERENCES project (id) '
            .'ON DELETE CASCADE NOT DEFERRABLE INITIALLY IMMEDIATE, '
            .'CONSTRAINT FK_2F87D5193CB796C FOREIGN KEY (file_id) REFERENCES survey_file (id) '
            .'ON DELETE CASCADE NOT DEFERRABLE INITIALLY IMMEDIATE)');
        $this->addSql('CREATE INDEX occupation_project ON occupation (project_id)');
        $this->addSql('CREATE INDEX IDX_2F87D5193CB796C ON occupation (file_id)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE occupation');
    }
}

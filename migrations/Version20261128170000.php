<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128170000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Mappings that are remembered; what names of a file stand for';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE survey_file ADD COLUMN names CLOB DEFAULT '[]' NOT NULL");
        $this->addSql(
            'CREATE TABLE remembered_mapping (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, shape VARCHAR(64) NOT NULL, '
            .'label VARCHAR(80) NOT NULL, kind VARCHAR(30) NOT NULL, mapping CLOB NOT NULL, project_id INTEGER NOT NULL, '
            .'author_id INTEGER NOT NULL, FOREIGN KEY (project_id) REFERENCES project (id) ON DELETE CASCADE, '
            .'FOREIGN KEY (author_id) REFERENCES account (id))',
        );
        $this->addSql('CREATE INDEX IDX_40A4D2FD166D1F9C ON remembered_mapping (project_id)');
        $this->addSql('CREATE INDEX remembered_mapping_author ON remembered_mapping (author_id)');
        $this->addSql('CREATE UNIQUE INDEX remembered_mapping_shape ON remembered_mapping (project_id, shape)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE remembered_mapping');
        $this->addSql('ALTER TABLE survey_file DROP COLUMN names');
    }
}

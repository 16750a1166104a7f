<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129100000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Materials; bands of comparisons; volumes are named and numbered on their own';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE material_list (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, materials CLOB NOT NULL, '
            .'capacity DOUBLE PRECISION DEFAULT 12 NOT NULL, version INTEGER DEFAULT 0 NOT NULL, project_id INTEGER NOT NULL, '
            .'CONSTRAINT FK_5B3C0A9F166D1F9C FOREIGN KEY (project_id) REFERENCES project (id) '
            .'ON DELETE CASCADE NOT DEFERRABLE INITIALLY IMMEDIATE)');
        $this->addSql('CREATE UNIQUE INDEX material_list_project ON material_list (project_id)');
        $this->addSql('CREATE TABLE bands (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, limits CLOB NOT NULL, colours CLOB NOT NULL, '
            .'version INTEGER DEFAULT 0 NOT NULL, number INTEGER NOT NULL, project_id INTEGER NOT NULL, '
            .'CONSTRAINT FK_24A0F0A3166D1F9C FOREIGN KEY (project_id) REFERENCES project (id) '
            .'ON DELETE CASCADE NOT DEFERRABLE INITIALLY IMMEDIATE)');
        $this->addSql('CREATE INDEX bands_project ON bands (project_id)');
        $this->addSql('CREATE UNIQUE INDEX bands_of_comparison ON bands (project_id, number)');
        // Until now a volume had the number of its surface, was against an elevation, and had no name.
        $this->addSql("UPDATE result SET settings = json_set(settings, '$.name', label, '$.surface', CAST(substr(slot, 8) AS INTEGER), "
            ."'$.against', 'elevation'), summary = json_set(summary, '$.name', label, '$.of', 'the surface', '$.against', "
            ."'the elevation ' || json_extract(settings, '$.elevation') || ' m') "
            ."WHERE kind = 'volume' AND json_extract(settings, '$.name') IS NULL");
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE material_list');
        $this->addSql('DROP TABLE bands');
    }
}

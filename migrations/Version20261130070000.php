<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261130070000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'How a point was measured: time, method, satellites, precision as its file says';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE point ADD COLUMN measured VARCHAR(400) DEFAULT '' NOT NULL");
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE point DROP COLUMN measured');
    }
}

<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128234500 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Weather recorded with observations';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE observation ADD COLUMN weather VARCHAR(60) DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE observation DROP COLUMN weather');
    }
}

<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128160000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'How people like things shown';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE preference (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name VARCHAR(60) NOT NULL, value CLOB NOT NULL, '
            .'user_id INTEGER NOT NULL, FOREIGN KEY (user_id) REFERENCES account (id) ON DELETE CASCADE)',
        );
        $this->addSql('CREATE INDEX IDX_5D69B053A76ED395 ON preference (user_id)');
        $this->addSql('CREATE UNIQUE INDEX preference_of_user ON preference (user_id, name)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE preference');
    }
}

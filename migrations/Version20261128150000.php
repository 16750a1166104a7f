<?php

declare(strict_types=1);

namespace Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261128150000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Failures to sign in, and where accounts are signed in';
    }

    public function up(Schema $schema): void
    {
        foreach ([
            'CREATE TABLE sign_in_failure (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name VARCHAR(32) NOT NULL, '
                .'address VARCHAR(45) NOT NULL, at DATETIME NOT NULL)',
            'CREATE INDEX sign_in_failure_at ON sign_in_failure (at)',
            'CREATE TABLE user_session (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, used_at DATETIME NOT NULL, '
                .'session_key VARCHAR(64) NOT NULL, '
                .'address VARCHAR(45) NOT NULL, agent VARCHAR(200) NOT NULL, begun_at DATETIME NOT NULL, user_id INTEGER NOT NULL, '
                .'FOREIGN KEY (user_id) REFERENCES account (id) ON DELETE CASCADE)',
            'CREATE INDEX user_session_user ON user_session (user_id)',
            'CREATE UNIQUE INDEX user_session_key ON user_session (session_key)',
        ] as $sql) {
            $this->addSql($sql);
        }
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE user_session');
        $this->addSql('DROP TABLE sign_in_failure');
    }
}

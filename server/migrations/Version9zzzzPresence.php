<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Who has a project open. */
final class Version9zzzzPresence extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE presence (project BINARY(16) NOT NULL, page BINARY(16) NOT NULL, account BINARY(16) NOT NULL, signed_in BINARY(16) NOT NULL, place BINARY(16) DEFAULT NULL, seen_at INT NOT NULL, PRIMARY KEY (project, page)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

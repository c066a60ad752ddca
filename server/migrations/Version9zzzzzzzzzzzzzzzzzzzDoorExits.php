<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Where doors lead to for who escapes, and their class of fire resistance. */
final class Version9zzzzzzzzzzzzzzzzzzzDoorExits extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE opening ADD exit_kind VARCHAR(7) DEFAULT 'none' NOT NULL, ADD rated VARCHAR(40) DEFAULT '' NOT NULL");
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** A leg says whether it was computed to close its boundary. */
final class Version9zzzzzzzComputedLegs extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE boundary_leg ADD computed TINYINT(1) DEFAULT 0 NOT NULL');
        $this->addSql('ALTER TABLE boundary_leg ALTER computed DROP DEFAULT');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

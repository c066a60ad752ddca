<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Stairs go up from storeys. */
final class Version9zzzzzzzzzzzStairs extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE stair (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, storey BINARY(16) NOT NULL, reaches BINARY(16) DEFAULT NULL, line LONGTEXT NOT NULL, treads LONGTEXT NOT NULL, width DOUBLE PRECISION NOT NULL, risers INT NOT NULL, turn VARCHAR(7) NOT NULL, winders INT NOT NULL, build VARCHAR(7) NOT NULL, thickness DOUBLE PRECISION NOT NULL, nosing DOUBLE PRECISION NOT NULL, rails VARCHAR(5) NOT NULL, rail_height DOUBLE PRECISION NOT NULL, headroom DOUBLE PRECISION NOT NULL, INDEX IDX_stair_storey (project, storey), INDEX IDX_stair_reaches (project, reaches), PRIMARY KEY (project, id))');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Edges of outlines, dividers and legs of boundaries may be curves, and notes stand on sides as well. */
final class Version9zzCurvedEdges extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE outline_corner ADD rise DOUBLE PRECISION NOT NULL DEFAULT 0');
        $this->addSql('ALTER TABLE outline_corner ALTER rise DROP DEFAULT');
        $this->addSql("ALTER TABLE boundary_leg ADD radius VARCHAR(60) NOT NULL DEFAULT '', ADD turns VARCHAR(5) NOT NULL DEFAULT 'left', ADD gives VARCHAR(5) NOT NULL DEFAULT 'chord'");
        $this->addSql('ALTER TABLE divider ADD rise DOUBLE PRECISION NOT NULL DEFAULT 0');
        $this->addSql('ALTER TABLE divider ALTER rise DROP DEFAULT');
        $this->addSql('ALTER TABLE note CHANGE storey storey BINARY(16) DEFAULT NULL, ADD side BINARY(16) DEFAULT NULL');
        $this->addSql('ALTER TABLE boundary_leg ALTER radius DROP DEFAULT, ALTER turns DROP DEFAULT, ALTER gives DROP DEFAULT');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

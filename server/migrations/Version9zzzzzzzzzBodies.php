<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Roofs rise over the edges of outlines, openings may be arched, walls may end under ceilings, objects stand in rooms, views are saved. */
final class Version9zzzzzzzzzBodies extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE outline_corner ADD pitch DOUBLE PRECISION DEFAULT NULL, ADD overhang DOUBLE PRECISION DEFAULT 0 NOT NULL');
        $this->addSql("ALTER TABLE opening ADD head VARCHAR(10) DEFAULT 'level' NOT NULL, ADD rise DOUBLE PRECISION DEFAULT 0 NOT NULL");
        $this->addSql('ALTER TABLE wall ADD to_ceiling TINYINT(1) DEFAULT 0 NOT NULL');
        $this->addSql('CREATE TABLE saved_view (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, name VARCHAR(120) NOT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, z DOUBLE PRECISION NOT NULL, distance DOUBLE PRECISION NOT NULL, turn DOUBLE PRECISION NOT NULL, tilt DOUBLE PRECISION NOT NULL, cut VARCHAR(7) NOT NULL, cut_at DOUBLE PRECISION NOT NULL, cut_turn DOUBLE PRECISION NOT NULL, left_out VARCHAR(1000) NOT NULL, PRIMARY KEY (project, id))');
        $this->addSql('CREATE TABLE placed_object (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, storey BINARY(16) NOT NULL, kind VARCHAR(20) NOT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, degrees DOUBLE PRECISION NOT NULL, width DOUBLE PRECISION NOT NULL, depth DOUBLE PRECISION NOT NULL, height DOUBLE PRECISION NOT NULL, base DOUBLE PRECISION NOT NULL, INDEX IDX_placed_object_storey (project, storey), PRIMARY KEY (project, id))');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

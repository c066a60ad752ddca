<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Lines and dimensions drawn freely, profiles taken along a path, and sides in a row. */
final class Version9zzzzzzzzzzzzzzzDrafting extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE drawn_line (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, storey BINARY(16) DEFAULT NULL, side BINARY(16) DEFAULT NULL, drawing BINARY(16) DEFAULT NULL, name VARCHAR(120) NOT NULL, line LONGTEXT NOT NULL, closed TINYINT(1) NOT NULL, kind VARCHAR(26) NOT NULL, fill VARCHAR(13) NOT NULL, INDEX IDX_drawn_line_storey (project, storey), INDEX IDX_drawn_line_side (project, side), INDEX IDX_drawn_line_drawing (project, drawing), PRIMARY KEY (project, id))');
        $this->addSql('CREATE TABLE dimension (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, storey BINARY(16) DEFAULT NULL, side BINARY(16) DEFAULT NULL, x1 DOUBLE PRECISION NOT NULL, y1 DOUBLE PRECISION NOT NULL, x2 DOUBLE PRECISION NOT NULL, y2 DOUBLE PRECISION NOT NULL, direction DOUBLE PRECISION DEFAULT NULL, off DOUBLE PRECISION NOT NULL, INDEX IDX_dimension_storey (project, storey), INDEX IDX_dimension_side (project, side), PRIMARY KEY (project, id))');
        $this->addSql('CREATE TABLE sweep (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, storey BINARY(16) NOT NULL, name VARCHAR(120) NOT NULL, profile BINARY(16) NOT NULL, held_x DOUBLE PRECISION NOT NULL, held_y DOUBLE PRECISION NOT NULL, outline BINARY(16) DEFAULT NULL, path BINARY(16) DEFAULT NULL, level DOUBLE PRECISION NOT NULL, inward TINYINT(1) NOT NULL, INDEX IDX_sweep_storey (project, storey), INDEX IDX_sweep_profile (project, profile), INDEX IDX_sweep_path (project, path), INDEX IDX_sweep_outline (project, outline), PRIMARY KEY (project, id))');
        $this->addSql('CREATE TABLE street_part (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, street BINARY(16) NOT NULL, side BINARY(16) NOT NULL, place_in_order INT NOT NULL, from_x DOUBLE PRECISION NOT NULL, to_x DOUBLE PRECISION NOT NULL, rise DOUBLE PRECISION NOT NULL, INDEX IDX_street_part_street (project, street), INDEX IDX_street_part_side (project, side), PRIMARY KEY (project, id))');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

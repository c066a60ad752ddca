<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Print sheets, what is on them, and what was said of their dimensions. */
final class Version9zzzzzzzzzzzzzzzzSheets extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE print_sheet (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, place_in_order INT NOT NULL, width DOUBLE PRECISION NOT NULL, height DOUBLE PRECISION NOT NULL, part VARCHAR(120) NOT NULL, number VARCHAR(40) NOT NULL, owner VARCHAR(120) NOT NULL, creator VARCHAR(120) NOT NULL, approved VARCHAR(120) NOT NULL, date VARCHAR(40) NOT NULL, PRIMARY KEY (project, id))');
        $this->addSql('CREATE TABLE sheet_view (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, sheet BINARY(16) NOT NULL, kind VARCHAR(12) NOT NULL, storey BINARY(16) DEFAULT NULL, side BINARY(16) DEFAULT NULL, drawing BINARY(16) DEFAULT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, scale DOUBLE PRECISION NOT NULL, from_x DOUBLE PRECISION DEFAULT NULL, from_y DOUBLE PRECISION DEFAULT NULL, to_x DOUBLE PRECISION DEFAULT NULL, to_y DOUBLE PRECISION DEFAULT NULL, width DOUBLE PRECISION DEFAULT NULL, title VARCHAR(120) NOT NULL, words LONGTEXT NOT NULL, shows VARCHAR(300) NOT NULL, turn DOUBLE PRECISION NOT NULL, tilt DOUBLE PRECISION NOT NULL, INDEX IDX_sheet_view_sheet (project, sheet), INDEX IDX_sheet_view_storey (project, storey), INDEX IDX_sheet_view_side (project, side), INDEX IDX_sheet_view_drawing (project, drawing), PRIMARY KEY (project, id))');
        $this->addSql('CREATE TABLE view_mark (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, view BINARY(16) NOT NULL, dimension VARCHAR(80) NOT NULL, dx DOUBLE PRECISION NOT NULL, dy DOUBLE PRECISION NOT NULL, left_out TINYINT(1) NOT NULL, INDEX IDX_view_mark_view (project, view), PRIMARY KEY (project, id))');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

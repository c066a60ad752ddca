<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;


/** More kinds of statements about a drawing, the setting-out grid, boundaries, locks, readings of a distance meter. */
final class Version3TrueUp extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE boundary (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, storey BINARY(16) NOT NULL, name VARCHAR(120) NOT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, INDEX IDX_3E7E02522FB3D0EE (project), INDEX IDX_3E7E0252354595D2 (storey), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE boundary_leg (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, boundary BINARY(16) NOT NULL, place_in_order INT NOT NULL, length VARCHAR(60) NOT NULL, bearing VARCHAR(40) NOT NULL, unit VARCHAR(4) NOT NULL, INDEX IDX_2AE6C3212FB3D0EE (project), INDEX IDX_2AE6C3213E7E0252 (boundary), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE building_column (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, storey BINARY(16) NOT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, width DOUBLE PRECISION NOT NULL, depth DOUBLE PRECISION NOT NULL, round TINYINT NOT NULL, INDEX IDX_6DE55D952FB3D0EE (project), INDEX IDX_6DE55D95354595D2 (storey), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE control_point (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, drawing BINARY(16) NOT NULL, pick BINARY(16) NOT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, text VARCHAR(60) NOT NULL, INDEX IDX_C5C5A792FB3D0EE (project), INDEX IDX_C5C5A79996B9FE7 (drawing), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE grid_axis (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, along VARCHAR(1) NOT NULL, at_mm DOUBLE PRECISION NOT NULL, label VARCHAR(12) NOT NULL, INDEX IDX_A33D2BA82FB3D0EE (project), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE meter_reading (id BINARY(16) NOT NULL, user_id BINARY(16) NOT NULL, text VARCHAR(40) NOT NULL, at DATETIME NOT NULL, INDEX IDX_814A20F9A76ED3956A57FD3C (user_id, at), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE rectangle (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, drawing BINARY(16) NOT NULL, a BINARY(16) NOT NULL, b BINARY(16) NOT NULL, c BINARY(16) NOT NULL, d BINARY(16) NOT NULL, width VARCHAR(120) NOT NULL, depth VARCHAR(120) NOT NULL, unit VARCHAR(4) NOT NULL, standing VARCHAR(24) NOT NULL, INDEX IDX_4C19FA992FB3D0EE (project), INDEX IDX_4C19FA99996B9FE7 (drawing), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('ALTER TABLE drawing ADD own_factor DOUBLE PRECISION DEFAULT NULL, ADD stated_scale DOUBLE PRECISION DEFAULT NULL, ADD stated_paper DOUBLE PRECISION DEFAULT NULL, ADD locked TINYINT NOT NULL');
        $this->addSql('ALTER TABLE grid_pick ADD bearing DOUBLE PRECISION DEFAULT NULL, ADD hand VARCHAR(8) NOT NULL');
        $this->addSql('ALTER TABLE known_length ADD picked VARCHAR(12) NOT NULL, ADD wall_mm DOUBLE PRECISION NOT NULL, ADD c BINARY(16) DEFAULT NULL, ADD whole_page TINYINT NOT NULL, ADD course DOUBLE PRECISION DEFAULT NULL, ADD unit_length DOUBLE PRECISION DEFAULT NULL, ADD joint DOUBLE PRECISION NOT NULL');
        $this->addSql('UPDATE known_length SET picked = ends');
        $this->addSql("UPDATE grid_pick SET hand = 'picked'");
        $this->addSql('ALTER TABLE project ADD course DOUBLE PRECISION DEFAULT NULL, ADD unit_length DOUBLE PRECISION DEFAULT NULL, ADD joint DOUBLE PRECISION NOT NULL');
        $this->addSql('UPDATE project SET joint = 10');
    }
}

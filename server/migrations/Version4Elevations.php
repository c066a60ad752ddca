<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;


/** Photographs and their straightened pictures, level marks, outlines, lines of sides, lengths that stand before a wall. */
final class Version4Elevations extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE level_mark (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, drawing BINARY(16) NOT NULL, pick BINARY(16) NOT NULL, kind VARCHAR(16) NOT NULL, name VARCHAR(60) NOT NULL, text VARCHAR(60) NOT NULL, unit VARCHAR(4) NOT NULL, INDEX IDX_F5109602FB3D0EE (project), INDEX IDX_F510960996B9FE7 (drawing), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE outline (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, side BINARY(16) NOT NULL, name VARCHAR(120) NOT NULL, INDEX IDX_477F52E52FB3D0EE (project), INDEX IDX_477F52E523811BB5 (side), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE outline_corner (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, outline BINARY(16) NOT NULL, drawing BINARY(16) DEFAULT NULL, place_in_order INT NOT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, INDEX IDX_9592ED512FB3D0EE (project), INDEX IDX_9592ED51477F52E5 (outline), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE rectified_picture (shape VARCHAR(40) NOT NULL, state VARCHAR(10) NOT NULL, done DOUBLE PRECISION NOT NULL, message VARCHAR(200) NOT NULL, width INT NOT NULL, height INT NOT NULL, made JSON NOT NULL, id BINARY(16) NOT NULL, PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('ALTER TABLE fit ADD lens_k DOUBLE PRECISION DEFAULT NULL, ADD lens_x DOUBLE PRECISION DEFAULT NULL, ADD lens_y DOUBLE PRECISION DEFAULT NULL');
        $this->addSql('ALTER TABLE known_length ADD stand_off DOUBLE PRECISION DEFAULT NULL, ADD seen_from DOUBLE PRECISION DEFAULT NULL');
        $this->addSql('ALTER TABLE side ADD from_x DOUBLE PRECISION DEFAULT NULL, ADD from_y DOUBLE PRECISION DEFAULT NULL, ADD to_x DOUBLE PRECISION DEFAULT NULL, ADD to_y DOUBLE PRECISION DEFAULT NULL');
        $this->addSql('ALTER TABLE boundary ADD up VARCHAR(40) NOT NULL');
        $this->addSql('ALTER TABLE drawing ADD keeps_size TINYINT NOT NULL');
    }
}

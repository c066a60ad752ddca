<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Surfaces of rooms and walls have finishes of true size; floors say how much of them is their finish; some walls are railings. */
final class Version9zzzzzzzzzzFinishes extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE wall ADD railing TINYINT(1) DEFAULT 0 NOT NULL');
        $this->addSql('ALTER TABLE outline ADD finish DOUBLE PRECISION DEFAULT NULL');
        $this->addSql('CREATE TABLE finish (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, name VARCHAR(120) NOT NULL, colour VARCHAR(7) NOT NULL, pattern VARCHAR(6) NOT NULL, width DOUBLE PRECISION NOT NULL, height DOUBLE PRECISION NOT NULL, joint DOUBLE PRECISION NOT NULL, bond VARCHAR(7) NOT NULL, PRIMARY KEY (project, id))');
        $this->addSql('CREATE TABLE surface (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, finish BINARY(16) NOT NULL, room BINARY(16) DEFAULT NULL, wall BINARY(16) DEFAULT NULL, laid_on VARCHAR(7) NOT NULL, bottom DOUBLE PRECISION DEFAULT NULL, top DOUBLE PRECISION DEFAULT NULL, start_mm DOUBLE PRECISION DEFAULT NULL, end_mm DOUBLE PRECISION DEFAULT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, degrees DOUBLE PRECISION NOT NULL, INDEX IDX_surface_room (project, room), INDEX IDX_surface_wall (project, wall), INDEX IDX_surface_finish (project, finish), PRIMARY KEY (project, id))');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

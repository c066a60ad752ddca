<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Areas with a class of fire resistance, which of them may lie over one place, and what a project asks of its ways out. */
final class Version9zzzzzzzzzzzzzzzzzzzzEnclosures extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE fire_class (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, name VARCHAR(60) NOT NULL, colour VARCHAR(7) NOT NULL, hatch VARCHAR(8) NOT NULL, PRIMARY KEY (project, id))');
        $this->addSql('CREATE TABLE enclosure (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, storey BINARY(16) NOT NULL, fire_class BINARY(16) NOT NULL, drawing BINARY(16) DEFAULT NULL, line LONGTEXT NOT NULL, INDEX IDX_enclosure_storey (project, storey), INDEX IDX_enclosure_fire_class (project, fire_class), INDEX IDX_enclosure_drawing (project, drawing), PRIMARY KEY (project, id))');
        $this->addSql('CREATE TABLE enclosed_room (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, enclosure BINARY(16) NOT NULL, room BINARY(16) NOT NULL, INDEX IDX_enclosed_room_enclosure (project, enclosure), INDEX IDX_enclosed_room_room (project, room), PRIMARY KEY (project, id))');
        $this->addSql('CREATE TABLE classes_together (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, one BINARY(16) NOT NULL, other BINARY(16) NOT NULL, INDEX IDX_classes_together_one (project, one), INDEX IDX_classes_together_other (project, other), PRIMARY KEY (project, id))');
        $this->addSql('CREATE TABLE escape_limit (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, measure VARCHAR(8) NOT NULL, bound DOUBLE PRECISION NOT NULL, standing VARCHAR(120) NOT NULL, PRIMARY KEY (project, id))');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** A project has limits of its own for its stairs; stairs know the drawing they were traced over, and how their posts are set out. */
final class Version9zzzzzzzzzzzzStairLimits extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE stair_limit (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, measure VARCHAR(8) NOT NULL, least DOUBLE PRECISION DEFAULT NULL, most DOUBLE PRECISION DEFAULT NULL, standing VARCHAR(120) NOT NULL, PRIMARY KEY (project, id))');
        $this->addSql("ALTER TABLE stair ADD drawing BINARY(16) DEFAULT NULL, ADD posts VARCHAR(6) DEFAULT 'gap' NOT NULL, ADD posts_by DOUBLE PRECISION DEFAULT '95' NOT NULL");
        $this->addSql('CREATE INDEX IDX_stair_drawing ON stair (project, drawing)');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

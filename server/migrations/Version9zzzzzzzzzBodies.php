<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Roofs rise over the edges of outlines, openings may be arched, walls may end under ceilings. */
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
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

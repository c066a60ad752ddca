<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Places whose coordinates in a map are known. */
final class Version9zzzzzzzzzzzzzzzzzzMapPoints extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE map_point (project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, revision INT NOT NULL, map_reference VARCHAR(40) NOT NULL, boundary BINARY(16) DEFAULT NULL, corner INT NOT NULL, east DOUBLE PRECISION NOT NULL, north DOUBLE PRECISION NOT NULL, height DOUBLE PRECISION DEFAULT NULL, INDEX IDX_map_point_boundary (project, boundary), PRIMARY KEY (project, id))');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

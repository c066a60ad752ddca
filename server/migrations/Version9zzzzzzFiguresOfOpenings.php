<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Figures tell the width of an opening as well. */
final class Version9zzzzzzFiguresOfOpenings extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE figure ADD opening BINARY(16) DEFAULT NULL');
        $this->addSql('CREATE INDEX IDX_2F57B37A2FB3D0EEE35D4C3 ON figure (project, opening)');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

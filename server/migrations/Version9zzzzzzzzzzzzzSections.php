<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Sides may be sections: cut along their lines, which may have jogs. */
final class Version9zzzzzzzzzzzzzSections extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE side ADD cut TINYINT(1) DEFAULT 0 NOT NULL, ADD depth DOUBLE PRECISION DEFAULT NULL, ADD jogs LONGTEXT NOT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** In what a project's sizes are shown: what is usual where its bare numbers mean what they do. */
final class Version9zOwnUnits extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE project ADD shows VARCHAR(8) NOT NULL DEFAULT 'mm'");
        $this->addSql("UPDATE project SET shows = IF(unit = 'ft', 'ft-in/16', unit)");
        $this->addSql('ALTER TABLE project ALTER shows DROP DEFAULT');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** A storey may have a wing that runs another way, and areas are shown in a unit of their own. */
final class Version9zzzzzWing extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE project ADD areas VARCHAR(3) NOT NULL DEFAULT 'm2'");
        $this->addSql("UPDATE project SET areas = IF(shows LIKE 'ft%' OR shows = 'in', 'ft2', 'm2')");
        $this->addSql('ALTER TABLE project ALTER areas DROP DEFAULT');
        $this->addSql('ALTER TABLE storey ADD wing DOUBLE PRECISION DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

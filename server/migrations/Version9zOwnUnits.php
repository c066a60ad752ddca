<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/**
 * In what a project's sizes are shown: what is usual where its bare numbers mean what they do. And what somebody has said to be so
 * though it is unusual.
 */
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
        $this->addSql('CREATE TABLE assurance (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, storey BINARY(16) NOT NULL, code VARCHAR(40) NOT NULL, thing VARCHAR(36) NOT NULL, INDEX IDX_386829AE2FB3D0EE354595D2 (project, storey), PRIMARY KEY (project, id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** With what scripts read a project. */
final class Version9zzzzzzzzzzzzzzzzzTokens extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE project_token (id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, name VARCHAR(80) NOT NULL, hash VARCHAR(64) NOT NULL, made_at DATETIME NOT NULL, used_at DATETIME DEFAULT NULL, UNIQUE INDEX UNIQ_project_token_hash (hash), INDEX IDX_project_token_project (project), PRIMARY KEY (id))');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

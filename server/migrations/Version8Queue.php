<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;


/** When a page was last heard of, so that whoever asks is told of those alone that differ; history is found by account and state in order. */
final class Version8Queue extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE page ADD pictures VARCHAR(32) DEFAULT '' NOT NULL");
        $this->addSql('ALTER TABLE page ADD told_at DATETIME(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6) ON UPDATE CURRENT_TIMESTAMP(6)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE page DROP told_at, DROP pictures');
    }
}

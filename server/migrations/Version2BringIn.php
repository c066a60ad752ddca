<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;


/** Sides, how drawings show, what files say of themselves, what an import found, newer versions of pages. */
final class Version2BringIn extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE side (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, name VARCHAR(120) NOT NULL, INDEX IDX_23811BB52FB3D0EE (project), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('ALTER TABLE drawing ADD side BINARY(16) DEFAULT NULL, ADD turns INT NOT NULL, ADD ink_only TINYINT NOT NULL, ADD tint VARCHAR(8) NOT NULL, ADD before_tracing TINYINT NOT NULL, ADD place_in_order INT NOT NULL, ADD hidden TINYINT NOT NULL, ADD model VARCHAR(12) NOT NULL, CHANGE storey storey BINARY(16) DEFAULT NULL');
        $this->addSql('CREATE INDEX IDX_996B9FE723811BB5 ON drawing (side)');
        $this->addSql('ALTER TABLE fit ADD basis VARCHAR(12) NOT NULL');
        $this->addSql('ALTER TABLE page ADD remark VARCHAR(300) NOT NULL, ADD hint_mm_per_pixel DOUBLE PRECISION DEFAULT NULL, ADD hint_turn_degrees DOUBLE PRECISION DEFAULT NULL, ADD hint_x DOUBLE PRECISION DEFAULT NULL, ADD hint_y DOUBLE PRECISION DEFAULT NULL, ADD hint_from VARCHAR(40) NOT NULL, ADD replaces BINARY(16) DEFAULT NULL, ADD made MEDIUMTEXT NOT NULL, ADD registration LONGTEXT NOT NULL');
        $this->addSql('ALTER TABLE project_change RENAME INDEX idx_4057fe202fb3d0ee7d3656a4a393d2fb TO IDX_57F3156A2FB3D0EE7D3656A4A393D2FB');
        $this->addSql('ALTER TABLE project_change RENAME INDEX uniq_4057fe202fb3d0ee6d6315cc TO UNIQ_57F3156A2FB3D0EE6D6315CC');
        $this->addSql('ALTER TABLE source ADD origin VARCHAR(400) NOT NULL, ADD address VARCHAR(400) NOT NULL, ADD brought_by VARCHAR(80) NOT NULL, ADD brought_at VARCHAR(32) NOT NULL');
        $this->addSql("UPDATE fit SET basis = IF(is_guess = 1, 'paper', 'lengths')");
        $this->addSql("UPDATE drawing SET tint = 'ink', model = 'similar'");
        // What is found at an import is missing for pages read before.
        $this->addSql("UPDATE page SET state = 'stopped', message = 'Read by an earlier version of this application: read it again.' WHERE state = 'ready'");
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;


/**
 * Auto-generated Migration: Please modify to your needs!
 */
final class Version1FirstTables extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        // this up() migration is auto-generated, please modify it to your needs
        $this->addSql('CREATE TABLE account (id BINARY(16) NOT NULL, password_hash VARCHAR(255) NOT NULL, email VARCHAR(180) NOT NULL, name VARCHAR(80) NOT NULL, UNIQUE INDEX UNIQ_7D3656A4E7927C74 (email), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE project_change (state VARCHAR(8) NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, revision INT NOT NULL, account BINARY(16) NOT NULL, title VARCHAR(120) NOT NULL, touches JSON NOT NULL, at DATETIME NOT NULL, target BINARY(16) DEFAULT NULL, INDEX IDX_4057FE202FB3D0EE7D3656A4A393D2FB (project, account, state), UNIQUE INDEX UNIQ_4057FE202FB3D0EE6D6315CC (project, revision), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE derived_storey (storey BINARY(16) NOT NULL, revision INT NOT NULL, shapes LONGTEXT NOT NULL, PRIMARY KEY (storey)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE drawing (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, page BINARY(16) NOT NULL, storey BINARY(16) NOT NULL, name VARCHAR(120) NOT NULL, kind VARCHAR(10) NOT NULL, left_px DOUBLE PRECISION NOT NULL, top_px DOUBLE PRECISION NOT NULL, width DOUBLE PRECISION NOT NULL, height DOUBLE PRECISION NOT NULL, fade DOUBLE PRECISION NOT NULL, INDEX IDX_996B9FE72FB3D0EE (project), INDEX IDX_996B9FE7140AB620 (page), INDEX IDX_996B9FE7354595D2 (storey), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE failed_sign_in (id INT AUTO_INCREMENT NOT NULL, sender VARCHAR(64) NOT NULL, failed_at INT NOT NULL, INDEX IDX_58F658665F004ACF1DD19495 (sender, failed_at), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE fit (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, model VARCHAR(12) NOT NULL, is_guess TINYINT NOT NULL, m00 DOUBLE PRECISION NOT NULL, m01 DOUBLE PRECISION NOT NULL, m02 DOUBLE PRECISION NOT NULL, m10 DOUBLE PRECISION NOT NULL, m11 DOUBLE PRECISION NOT NULL, m12 DOUBLE PRECISION NOT NULL, m20 DOUBLE PRECISION NOT NULL, m21 DOUBLE PRECISION NOT NULL, m22 DOUBLE PRECISION NOT NULL, plus_minus_mm_per10m DOUBLE PRECISION DEFAULT NULL, INDEX IDX_504C0B4B2FB3D0EE (project), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE grid_pick (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, drawing BINARY(16) NOT NULL, a BINARY(16) NOT NULL, b BINARY(16) NOT NULL, axis VARCHAR(1) NOT NULL, INDEX IDX_BFFFA2C92FB3D0EE (project), INDEX IDX_BFFFA2C9996B9FE7 (drawing), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE known_length (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, drawing BINARY(16) NOT NULL, a BINARY(16) NOT NULL, b BINARY(16) NOT NULL, text VARCHAR(120) NOT NULL, unit VARCHAR(4) NOT NULL, mm DOUBLE PRECISION NOT NULL, step_mm DOUBLE PRECISION NOT NULL, standing VARCHAR(24) NOT NULL, ends VARCHAR(12) NOT NULL, along VARCHAR(10) NOT NULL, held_out TINYINT NOT NULL, INDEX IDX_34DA56702FB3D0EE (project), INDEX IDX_34DA5670996B9FE7 (drawing), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE node (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, storey BINARY(16) NOT NULL, drawing BINARY(16) DEFAULT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, INDEX IDX_857FE8452FB3D0EE (project), INDEX IDX_857FE845354595D28CDC1683FBDB2615 (storey, x, y), INDEX IDX_857FE845996B9FE7 (drawing), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE opening (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, wall BINARY(16) NOT NULL, kind VARCHAR(8) NOT NULL, offset_mm DOUBLE PRECISION NOT NULL, width DOUBLE PRECISION NOT NULL, sill DOUBLE PRECISION NOT NULL, height DOUBLE PRECISION DEFAULT NULL, hand VARCHAR(5) NOT NULL, swing VARCHAR(5) NOT NULL, number VARCHAR(12) NOT NULL, INDEX IDX_E35D4C32FB3D0EE (project), INDEX IDX_E35D4C313F5EFF6 (wall), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE page (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, source BINARY(16) NOT NULL, number INT NOT NULL, width INT NOT NULL, height INT NOT NULL, resolution DOUBLE PRECISION DEFAULT NULL, state VARCHAR(10) NOT NULL, has_preview TINYINT NOT NULL, tiles_done INT NOT NULL, tiles_total INT NOT NULL, tile_suffix VARCHAR(8) NOT NULL, message VARCHAR(400) NOT NULL, INDEX IDX_140AB6202FB3D0EE (project), INDEX IDX_140AB6205F8A7F73 (source), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE pick (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, drawing BINARY(16) NOT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, sigma_px DOUBLE PRECISION NOT NULL, INDEX IDX_99CD0F9B2FB3D0EE (project), INDEX IDX_99CD0F9B996B9FE7 (drawing), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE project (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, name VARCHAR(120) NOT NULL, purpose VARCHAR(20) NOT NULL, unit VARCHAR(4) NOT NULL, owner BINARY(16) NOT NULL, head INT NOT NULL, INDEX IDX_2FB3D0EECF60E67C (owner), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE room (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, storey BINARY(16) NOT NULL, drawing BINARY(16) DEFAULT NULL, name VARCHAR(120) NOT NULL, number VARCHAR(12) NOT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, INDEX IDX_729F519B2FB3D0EE (project), INDEX IDX_729F519B354595D2 (storey), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE source (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, name VARCHAR(200) NOT NULL, sha256 VARCHAR(64) NOT NULL, bytes INT NOT NULL, media_type VARCHAR(40) NOT NULL, INDEX IDX_5F8A7F732FB3D0EE (project), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE storey (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, name VARCHAR(120) NOT NULL, elevation DOUBLE PRECISION NOT NULL, height DOUBLE PRECISION NOT NULL, INDEX IDX_354595D22FB3D0EE (project), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE wall (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, storey BINARY(16) NOT NULL, from_node BINARY(16) NOT NULL, to_node BINARY(16) NOT NULL, thickness DOUBLE PRECISION NOT NULL, height DOUBLE PRECISION DEFAULT NULL, line VARCHAR(6) NOT NULL, evidence VARCHAR(10) NOT NULL, x_min DOUBLE PRECISION NOT NULL, y_min DOUBLE PRECISION NOT NULL, x_max DOUBLE PRECISION NOT NULL, y_max DOUBLE PRECISION NOT NULL, INDEX IDX_13F5EFF62FB3D0EE (project), INDEX IDX_13F5EFF6354595D2C2D48725FED9B87C (storey, x_min, x_max), INDEX IDX_13F5EFF6F0E935A6 (from_node), INDEX IDX_13F5EFF66291F98A (to_node), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE messenger_messages (id BIGINT AUTO_INCREMENT NOT NULL, body LONGTEXT NOT NULL, headers LONGTEXT NOT NULL, queue_name VARCHAR(190) NOT NULL, created_at DATETIME NOT NULL, available_at DATETIME NOT NULL, delivered_at DATETIME DEFAULT NULL, INDEX IDX_75EA56E0FB7336F0E3BD61CE16BA31DBBF396750 (queue_name, available_at, delivered_at, id), PRIMARY KEY (id))');
        $this->addSql('CREATE TABLE sessions (sess_id VARBINARY(128) NOT NULL, sess_data LONGBLOB NOT NULL, sess_lifetime INT UNSIGNED NOT NULL, sess_time INT UNSIGNED NOT NULL, INDEX sess_lifetime_idx (sess_lifetime), PRIMARY KEY (sess_id)) ENGINE = InnoDB');
    }

    public function down(Schema $schema): void
    {
        // this down() migration is auto-generated, please modify it to your needs
        $this->addSql('DROP TABLE account');
        $this->addSql('DROP TABLE `change`');
        $this->addSql('DROP TABLE derived_storey');
        $this->addSql('DROP TABLE drawing');
        $this->addSql('DROP TABLE failed_sign_in');
        $this->addSql('DROP TABLE fit');
        $this->addSql('DROP TABLE grid_pick');
        $this->addSql('DROP TABLE known_length');
        $this->addSql('DROP TABLE node');
        $this->addSql('DROP TABLE opening');
        $this->addSql('DROP TABLE page');
        $this->addSql('DROP TABLE pick');
        $this->addSql('DROP TABLE project');
        $this->addSql('DROP TABLE room');
        $this->addSql('DROP TABLE source');
        $this->addSql('DROP TABLE storey');
        $this->addSql('DROP TABLE wall');
        $this->addSql('DROP TABLE messenger_messages');
        $this->addSql('DROP TABLE sessions');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;


/** Arcs, build-ups, dividers, figures, notes, rooms tables; derived shapes one by one; shared projects. */
final class Version5Trace extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE derived_shape (storey BINARY(16) NOT NULL, kind VARCHAR(8) NOT NULL, name VARCHAR(36) NOT NULL, revision INT NOT NULL, area DOUBLE PRECISION NOT NULL, columns DOUBLE PRECISION NOT NULL, shape MEDIUMTEXT DEFAULT NULL, INDEX IDX_78F2E74B354595D26D6315CC (storey, revision), PRIMARY KEY (storey, kind, name)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE figure (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, storey BINARY(16) NOT NULL, drawing BINARY(16) DEFAULT NULL, a BINARY(16) NOT NULL, a_side VARCHAR(6) NOT NULL, b BINARY(16) NOT NULL, b_side VARCHAR(6) NOT NULL, text VARCHAR(60) NOT NULL, mm DOUBLE PRECISION NOT NULL, traced_mm DOUBLE PRECISION DEFAULT NULL, site_text VARCHAR(60) NOT NULL, site_mm DOUBLE PRECISION DEFAULT NULL, decided VARCHAR(6) NOT NULL, reason VARCHAR(400) NOT NULL, INDEX IDX_2F57B37A2FB3D0EE (project), INDEX IDX_2F57B37A354595D2 (storey), INDEX IDX_2F57B37A996B9FE7 (drawing), INDEX IDX_2F57B37AE8B7BE43 (a), INDEX IDX_2F57B37A71BEEFF9 (b), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE listed_room (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, storey BINARY(16) NOT NULL, number VARCHAR(12) NOT NULL, name VARCHAR(120) NOT NULL, width DOUBLE PRECISION DEFAULT NULL, depth DOUBLE PRECISION DEFAULT NULL, area_m2 DOUBLE PRECISION DEFAULT NULL, INDEX IDX_5EFC02402FB3D0EE (project), INDEX IDX_5EFC0240354595D2 (storey), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE note (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, storey BINARY(16) NOT NULL, x DOUBLE PRECISION NOT NULL, y DOUBLE PRECISION NOT NULL, to_x DOUBLE PRECISION DEFAULT NULL, to_y DOUBLE PRECISION DEFAULT NULL, words VARCHAR(400) NOT NULL, assumption TINYINT NOT NULL, INDEX IDX_CFBDFA142FB3D0EE (project), INDEX IDX_CFBDFA14354595D2 (storey), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE build_up (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, name VARCHAR(120) NOT NULL, thickness DOUBLE PRECISION NOT NULL, height DOUBLE PRECISION DEFAULT NULL, enclosing TINYINT NOT NULL, INDEX IDX_EB6CB6AB2FB3D0EE (project), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE region_line (storey BINARY(16) NOT NULL, line BINARY(16) NOT NULL, region VARCHAR(32) NOT NULL, INDEX IDX_8B2A3C1354595D2F62F176 (storey, region), PRIMARY KEY (storey, line, region)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE divider (revision INT NOT NULL, id BINARY(16) NOT NULL, project BINARY(16) NOT NULL, storey BINARY(16) NOT NULL, drawing BINARY(16) DEFAULT NULL, x1 DOUBLE PRECISION NOT NULL, y1 DOUBLE PRECISION NOT NULL, x2 DOUBLE PRECISION NOT NULL, y2 DOUBLE PRECISION NOT NULL, INDEX IDX_148DA8F22FB3D0EE (project), INDEX IDX_148DA8F2354595D2 (storey), INDEX IDX_148DA8F2996B9FE7 (drawing), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE project_share (project BINARY(16) NOT NULL, shared_with BINARY(16) NOT NULL, role VARCHAR(5) NOT NULL, INDEX IDX_FC5394C422668996 (shared_with), PRIMARY KEY (project, shared_with)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('ALTER TABLE wall ADD rise DOUBLE PRECISION DEFAULT 0 NOT NULL, ADD enclosing TINYINT DEFAULT 1 NOT NULL, ADD build_up BINARY(16) DEFAULT NULL');
        $this->addSql('ALTER TABLE opening ADD leaf VARCHAR(7) DEFAULT \'single\' NOT NULL');
        $this->addSql('ALTER TABLE room ADD height DOUBLE PRECISION DEFAULT NULL');
        $this->addSql('ALTER TABLE derived_storey DROP shapes');
        $this->addSql('ALTER TABLE outline ADD storey BINARY(16) DEFAULT NULL, ADD kind VARCHAR(9) DEFAULT \'face\' NOT NULL, ADD thickness DOUBLE PRECISION DEFAULT NULL, ADD top DOUBLE PRECISION DEFAULT NULL, CHANGE side side BINARY(16) DEFAULT NULL');
        $this->addSql('CREATE INDEX IDX_477F52E5354595D2 ON outline (storey)');
        $this->addSql('ALTER TABLE storey ADD alternative_of BINARY(16) DEFAULT NULL');
        $this->addSql('CREATE INDEX IDX_13F5EFF6354595D2FED9B87C ON wall (storey, x_max)');
        $this->addSql('CREATE INDEX IDX_13F5EFF6354595D2FFB4AE95 ON wall (storey, y_min)');
        $this->addSql('CREATE INDEX IDX_13F5EFF6354595D2C3B991CC ON wall (storey, y_max)');
        // Shapes are kept one by one now: they are derived again when they are first looked at.
        $this->addSql('DELETE FROM derived_storey');
    }
}

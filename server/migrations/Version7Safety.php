<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;


/**
 * Rows and changes are known by their project and id together; long work has a table of its own; addresses are compared byte by
 * byte. What is derived from rows, and what is made from source files, is made again when it is next looked at.
 */
final class Version7Safety extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE arrival (state VARCHAR(8) NOT NULL, refusal JSON NOT NULL, revision INT DEFAULT NULL, project BINARY(16) NOT NULL, id BINARY(16) NOT NULL, account BINARY(16) NOT NULL, name VARCHAR(255) NOT NULL, delivery JSON NOT NULL, dropped_as VARCHAR(255) NOT NULL, at INT NOT NULL, PRIMARY KEY (project, id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE job (number BIGINT AUTO_INCREMENT NOT NULL, project BINARY(16) NOT NULL, subject BINARY(16) NOT NULL, kind VARCHAR(20) NOT NULL, lane VARCHAR(5) NOT NULL, more JSON NOT NULL, attempt INT NOT NULL, tries INT NOT NULL, asked_at INT NOT NULL, not_before INT NOT NULL, held_until INT DEFAULT NULL, held_by VARCHAR(200) NOT NULL, INDEX IDX_FBD8E0F8DF07E54E3B00E8F9 (lane, not_before), INDEX IDX_FBD8E0F88C78103D (held_by), UNIQUE INDEX UNIQ_FBD8E0F82FB3D0EEFBCE3E7A3BC4BCD9 (project, subject, kind), PRIMARY KEY (number)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE job_turn (project BINARY(16) NOT NULL, lane VARCHAR(5) NOT NULL, served BIGINT NOT NULL, PRIMARY KEY (project, lane)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE known_sender (account BINARY(16) NOT NULL, sender BINARY(32) NOT NULL, seen_at INT NOT NULL, PRIMARY KEY (account, sender)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql('CREATE TABLE signed_in (id BINARY(16) NOT NULL, account BINARY(16) NOT NULL, began_at INT NOT NULL, seen_at INT NOT NULL, program VARCHAR(200) NOT NULL, INDEX IDX_2F213A7D3656A4DE907562 (account, seen_at), INDEX IDX_2F213ADE907562 (seen_at), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
        $this->addSql("INSERT INTO job (project, subject, kind, lane, more, attempt, tries, asked_at, not_before, held_until, held_by) SELECT project, id, 'import-page', 'slow', '{}', 0, 0, 0, 0, NULL, '' FROM page WHERE state IN ('waiting', 'working')");
        $this->addSql('DROP TABLE messenger_messages');
        $this->addSql('UPDATE account SET email = LOWER(TRIM(email))');
        $this->addSql('ALTER TABLE account CHANGE email email VARCHAR(180) NOT NULL COLLATE `utf8mb4_bin`');
        $this->addSql('DROP INDEX IDX_3E7E02522FB3D0EE ON boundary');
        $this->addSql('DROP INDEX IDX_3E7E0252354595D2 ON boundary');
        $this->addSql('ALTER TABLE boundary DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_3E7E02522FB3D0EE354595D2 ON boundary (project, storey)');
        $this->addSql('DROP INDEX IDX_2AE6C3212FB3D0EE ON boundary_leg');
        $this->addSql('DROP INDEX IDX_2AE6C3213E7E0252 ON boundary_leg');
        $this->addSql('ALTER TABLE boundary_leg DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_2AE6C3212FB3D0EE3E7E0252 ON boundary_leg (project, boundary)');
        $this->addSql('DROP INDEX IDX_EB6CB6AB2FB3D0EE ON build_up');
        $this->addSql('ALTER TABLE build_up DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('DROP INDEX IDX_6DE55D952FB3D0EE ON building_column');
        $this->addSql('DROP INDEX IDX_6DE55D95354595D2 ON building_column');
        $this->addSql('ALTER TABLE building_column DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_6DE55D952FB3D0EE354595D2 ON building_column (project, storey)');
        $this->addSql('DROP INDEX IDX_C5C5A792FB3D0EE ON control_point');
        $this->addSql('DROP INDEX IDX_C5C5A79996B9FE7 ON control_point');
        $this->addSql('ALTER TABLE control_point DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_C5C5A792FB3D0EE996B9FE7 ON control_point (project, drawing)');
        $this->addSql('DROP INDEX IDX_78F2E74B354595D26D6315CC ON derived_shape');
        $this->addSql('DELETE FROM derived_shape');
        $this->addSql('ALTER TABLE derived_shape ADD project BINARY(16) NOT NULL, DROP PRIMARY KEY, ADD PRIMARY KEY (project, storey, kind, name)');
        $this->addSql('CREATE INDEX IDX_78F2E74B2FB3D0EE354595D26D6315CC ON derived_shape (project, storey, revision)');
        $this->addSql('DELETE FROM derived_storey');
        $this->addSql('ALTER TABLE derived_storey ADD project BINARY(16) NOT NULL, DROP PRIMARY KEY, ADD PRIMARY KEY (project, storey)');
        $this->addSql('DROP INDEX IDX_148DA8F22FB3D0EE ON divider');
        $this->addSql('DROP INDEX IDX_148DA8F2354595D2 ON divider');
        $this->addSql('DROP INDEX IDX_148DA8F2996B9FE7 ON divider');
        $this->addSql('ALTER TABLE divider DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_148DA8F22FB3D0EE354595D2 ON divider (project, storey)');
        $this->addSql('CREATE INDEX IDX_148DA8F22FB3D0EE996B9FE7 ON divider (project, drawing)');
        $this->addSql('DROP INDEX IDX_996B9FE7140AB620 ON drawing');
        $this->addSql('DROP INDEX IDX_996B9FE723811BB5 ON drawing');
        $this->addSql('DROP INDEX IDX_996B9FE72FB3D0EE ON drawing');
        $this->addSql('DROP INDEX IDX_996B9FE7354595D2 ON drawing');
        $this->addSql('ALTER TABLE drawing DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_996B9FE72FB3D0EE140AB620 ON drawing (project, page)');
        $this->addSql('CREATE INDEX IDX_996B9FE72FB3D0EE354595D2 ON drawing (project, storey)');
        $this->addSql('CREATE INDEX IDX_996B9FE72FB3D0EE23811BB5 ON drawing (project, side)');
        $this->addSql('DELETE FROM failed_sign_in');
        $this->addSql('ALTER TABLE failed_sign_in ADD account BINARY(16) DEFAULT NULL, CHANGE id id BIGINT AUTO_INCREMENT NOT NULL, CHANGE sender sender BINARY(32) NOT NULL');
        $this->addSql('CREATE INDEX IDX_58F658667D3656A41DD19495 ON failed_sign_in (account, failed_at)');
        $this->addSql('DROP INDEX IDX_2F57B37A2FB3D0EE ON figure');
        $this->addSql('DROP INDEX IDX_2F57B37A354595D2 ON figure');
        $this->addSql('DROP INDEX IDX_2F57B37A71BEEFF9 ON figure');
        $this->addSql('DROP INDEX IDX_2F57B37A996B9FE7 ON figure');
        $this->addSql('DROP INDEX IDX_2F57B37AE8B7BE43 ON figure');
        $this->addSql('ALTER TABLE figure DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_2F57B37A2FB3D0EE354595D2 ON figure (project, storey)');
        $this->addSql('CREATE INDEX IDX_2F57B37A2FB3D0EE996B9FE7 ON figure (project, drawing)');
        $this->addSql('CREATE INDEX IDX_2F57B37A2FB3D0EEE8B7BE43 ON figure (project, a)');
        $this->addSql('CREATE INDEX IDX_2F57B37A2FB3D0EE71BEEFF9 ON figure (project, b)');
        $this->addSql('DELETE FROM finding');
        $this->addSql('ALTER TABLE finding ADD project BINARY(16) NOT NULL, DROP PRIMARY KEY, ADD PRIMARY KEY (project, drawing, kind)');
        $this->addSql('DROP INDEX IDX_504C0B4B2FB3D0EE ON fit');
        $this->addSql('ALTER TABLE fit DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('DROP INDEX IDX_A33D2BA82FB3D0EE ON grid_axis');
        $this->addSql('ALTER TABLE grid_axis DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('DROP INDEX IDX_BFFFA2C92FB3D0EE ON grid_pick');
        $this->addSql('DROP INDEX IDX_BFFFA2C9996B9FE7 ON grid_pick');
        $this->addSql('ALTER TABLE grid_pick DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_BFFFA2C92FB3D0EE996B9FE7 ON grid_pick (project, drawing)');
        $this->addSql('DROP INDEX IDX_34DA56702FB3D0EE ON known_length');
        $this->addSql('DROP INDEX IDX_34DA5670996B9FE7 ON known_length');
        $this->addSql('ALTER TABLE known_length DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_34DA56702FB3D0EE996B9FE7 ON known_length (project, drawing)');
        $this->addSql('DROP INDEX IDX_F5109602FB3D0EE ON level_mark');
        $this->addSql('DROP INDEX IDX_F510960996B9FE7 ON level_mark');
        $this->addSql('ALTER TABLE level_mark DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_F5109602FB3D0EE996B9FE7 ON level_mark (project, drawing)');
        $this->addSql('DROP INDEX IDX_5EFC02402FB3D0EE ON listed_room');
        $this->addSql('DROP INDEX IDX_5EFC0240354595D2 ON listed_room');
        $this->addSql('ALTER TABLE listed_room DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_5EFC02402FB3D0EE354595D2 ON listed_room (project, storey)');
        $this->addSql('ALTER TABLE meter_reading DROP PRIMARY KEY, ADD PRIMARY KEY (user_id, id)');
        $this->addSql('DROP INDEX IDX_857FE8452FB3D0EE ON node');
        $this->addSql('DROP INDEX IDX_857FE845354595D28CDC1683FBDB2615 ON node');
        $this->addSql('DROP INDEX IDX_857FE845996B9FE7 ON node');
        $this->addSql('ALTER TABLE node DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_857FE8452FB3D0EE354595D28CDC1683FBDB2615 ON node (project, storey, x, y)');
        $this->addSql('CREATE INDEX IDX_857FE8452FB3D0EE996B9FE7 ON node (project, drawing)');
        $this->addSql('DROP INDEX IDX_CFBDFA142FB3D0EE ON note');
        $this->addSql('DROP INDEX IDX_CFBDFA14354595D2 ON note');
        $this->addSql('ALTER TABLE note DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_CFBDFA142FB3D0EE354595D2 ON note (project, storey)');
        $this->addSql('DROP INDEX IDX_E35D4C313F5EFF6 ON opening');
        $this->addSql('DROP INDEX IDX_E35D4C32FB3D0EE ON opening');
        $this->addSql('ALTER TABLE opening DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_E35D4C32FB3D0EE13F5EFF6 ON opening (project, wall)');
        $this->addSql('DROP INDEX IDX_477F52E523811BB5 ON outline');
        $this->addSql('DROP INDEX IDX_477F52E52FB3D0EE ON outline');
        $this->addSql('DROP INDEX IDX_477F52E5354595D2 ON outline');
        $this->addSql('ALTER TABLE outline DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_477F52E52FB3D0EE23811BB5 ON outline (project, side)');
        $this->addSql('CREATE INDEX IDX_477F52E52FB3D0EE354595D2 ON outline (project, storey)');
        $this->addSql('DROP INDEX IDX_9592ED512FB3D0EE ON outline_corner');
        $this->addSql('DROP INDEX IDX_9592ED51477F52E5 ON outline_corner');
        $this->addSql('ALTER TABLE outline_corner DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_9592ED512FB3D0EE477F52E5 ON outline_corner (project, outline)');
        $this->addSql('DROP INDEX IDX_140AB6202FB3D0EE ON page');
        $this->addSql('DROP INDEX IDX_140AB6205F8A7F73 ON page');
        $this->addSql('ALTER TABLE page DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_140AB6202FB3D0EE5F8A7F73 ON page (project, source)');
        $this->addSql('DROP INDEX IDX_99CD0F9B2FB3D0EE ON pick');
        $this->addSql('DROP INDEX IDX_99CD0F9B996B9FE7 ON pick');
        $this->addSql('ALTER TABLE pick DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_99CD0F9B2FB3D0EE996B9FE7 ON pick (project, drawing)');
        $this->addSql('ALTER TABLE project DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('ALTER TABLE project_change DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('DROP INDEX IDX_4C19FA992FB3D0EE ON rectangle');
        $this->addSql('DROP INDEX IDX_4C19FA99996B9FE7 ON rectangle');
        $this->addSql('ALTER TABLE rectangle DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_4C19FA992FB3D0EE996B9FE7 ON rectangle (project, drawing)');
        $this->addSql('DELETE FROM rectified_picture');
        $this->addSql('ALTER TABLE rectified_picture ADD project BINARY(16) NOT NULL, DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('DROP INDEX IDX_8B2A3C1354595D2F62F176 ON region_line');
        $this->addSql('DELETE FROM region_line');
        $this->addSql('ALTER TABLE region_line ADD project BINARY(16) NOT NULL, DROP PRIMARY KEY, ADD PRIMARY KEY (project, storey, line, region)');
        $this->addSql('CREATE INDEX IDX_8B2A3C12FB3D0EE354595D2F62F176 ON region_line (project, storey, region)');
        $this->addSql('DROP INDEX IDX_729F519B2FB3D0EE ON room');
        $this->addSql('DROP INDEX IDX_729F519B354595D2 ON room');
        $this->addSql('ALTER TABLE room DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_729F519B2FB3D0EE354595D2 ON room (project, storey)');
        $this->addSql('DROP INDEX IDX_23811BB52FB3D0EE ON side');
        $this->addSql('ALTER TABLE side DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('DROP INDEX IDX_5F8A7F732FB3D0EE ON source');
        $this->addSql('ALTER TABLE source DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('DROP INDEX IDX_354595D22FB3D0EE ON storey');
        $this->addSql('ALTER TABLE storey DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('DROP INDEX IDX_13F5EFF62FB3D0EE ON wall');
        $this->addSql('DROP INDEX IDX_13F5EFF6354595D2C2D48725FED9B87C ON wall');
        $this->addSql('DROP INDEX IDX_13F5EFF6354595D2C3B991CC ON wall');
        $this->addSql('DROP INDEX IDX_13F5EFF6354595D2FED9B87C ON wall');
        $this->addSql('DROP INDEX IDX_13F5EFF6354595D2FFB4AE95 ON wall');
        $this->addSql('DROP INDEX IDX_13F5EFF66291F98A ON wall');
        $this->addSql('DROP INDEX IDX_13F5EFF6F0E935A6 ON wall');
        $this->addSql('ALTER TABLE wall DROP PRIMARY KEY, ADD PRIMARY KEY (project, id)');
        $this->addSql('CREATE INDEX IDX_13F5EFF62FB3D0EE354595D2C2D48725FED9B87C ON wall (project, storey, x_min, x_max)');
        $this->addSql('CREATE INDEX IDX_13F5EFF62FB3D0EE354595D2FED9B87C ON wall (project, storey, x_max)');
        $this->addSql('CREATE INDEX IDX_13F5EFF62FB3D0EE354595D2FFB4AE95 ON wall (project, storey, y_min)');
        $this->addSql('CREATE INDEX IDX_13F5EFF62FB3D0EE354595D2C3B991CC ON wall (project, storey, y_max)');
        $this->addSql('CREATE INDEX IDX_13F5EFF62FB3D0EEF0E935A6 ON wall (project, from_node)');
        $this->addSql('CREATE INDEX IDX_13F5EFF62FB3D0EE6291F98A ON wall (project, to_node)');
    }
}

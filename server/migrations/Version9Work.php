<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;


/**
 * How far long work is stands in one table for all of it, and stays there when it has ended. What a storey's shapes add up to is kept
 * with it; the history is found by account and state in order.
 */
final class Version9Work extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE job ADD state VARCHAR(7) DEFAULT 'waiting' NOT NULL, ADD basis VARCHAR(40) DEFAULT '' NOT NULL, ADD part DOUBLE PRECISION DEFAULT 0 NOT NULL, ADD words VARCHAR(400) DEFAULT '' NOT NULL, ADD reason VARCHAR(40) DEFAULT '' NOT NULL, ADD told_at DATETIME(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6) ON UPDATE CURRENT_TIMESTAMP(6), DROP INDEX IDX_FBD8E0F8DF07E54E3B00E8F9, ADD INDEX IDX_FBD8E0F8DF07E54EA393D2FB3B00E8F9 (lane, state, not_before)");
        $this->addSql("UPDATE job SET basis = COALESCE(JSON_VALUE(more, '$.basis'), JSON_VALUE(more, '$.shape'), '')");
        // What has ended and did not come to what was wanted says so from here on.
        $ended = 'INSERT IGNORE INTO job (project, subject, kind, lane, basis, more, state, part, words, reason, attempt, tries, asked_at, not_before, held_by)';
        $this->addSql("$ended SELECT project, id, 'import-page', 'slow', '', '{}', state, 0, message, 'failed', 0, 0, UNIX_TIMESTAMP(), 0, '' FROM page WHERE state IN ('failed', 'stopped')");
        $this->addSql("$ended SELECT project, drawing, IF(kind = 'walls', 'find-walls', 'read-figures'), 'slow', basis, '{}', state, 0, message, 'failed', 0, 0, UNIX_TIMESTAMP(), 0, '' FROM finding WHERE state IN ('failed', 'stopped')");
        $this->addSql("$ended SELECT project, id, 'rectify-drawing', 'slow', shape, '{}', state, 0, message, 'failed', 0, 0, UNIX_TIMESTAMP(), 0, '' FROM rectified_picture WHERE state IN ('failed', 'stopped')");
        $this->addSql("$ended SELECT project, id, 'match-pages', 'quick', '', '{}', 'failed', 0, JSON_VALUE(registration, '$.words'), 'failed', 0, 0, UNIX_TIMESTAMP(), 0, '' FROM page WHERE registration <> '' AND JSON_VALUE(registration, '$.state') = 'lost'");
        $this->addSql("$ended SELECT project, id, 'look-at-arrival', 'quick', '', '{}', IF(revision IS NULL, 'failed', 'done'), 0, COALESCE(JSON_VALUE(refusal, '$.message'), ''), COALESCE(JSON_VALUE(refusal, '$.code'), ''), 0, 0, UNIX_TIMESTAMP(), 0, '' FROM arrival WHERE state <> 'waiting'");
        $this->addSql("UPDATE page SET registration = IF(JSON_VALUE(registration, '$.state') = 'found', JSON_REMOVE(registration, '$.state'), '') WHERE registration <> ''");
        $this->addSql("UPDATE finding SET basis = '', found = '{}' WHERE state <> 'ready'");
        $this->addSql("DELETE FROM rectified_picture WHERE state <> 'ready'");
        $this->addSql('ALTER TABLE page DROP state, DROP tiles_done, DROP tiles_total, DROP message, DROP told_at');
        $this->addSql('ALTER TABLE finding DROP state, DROP done, DROP message');
        $this->addSql('ALTER TABLE rectified_picture DROP state, DROP done, DROP message');
        $this->addSql('ALTER TABLE arrival DROP state, DROP refusal');
        $this->addSql('ALTER TABLE derived_storey ADD walls DOUBLE PRECISION DEFAULT 0 NOT NULL, ADD regions DOUBLE PRECISION DEFAULT 0 NOT NULL, ADD columns DOUBLE PRECISION DEFAULT 0 NOT NULL');
        $this->addSql('CREATE INDEX IDX_78F2E74B2FB3D0EE354595D23BC4BCD9D7943D68ACCEC0B7 ON derived_shape (project, storey, kind, area, columns)');
        $this->addSql("UPDATE derived_storey d SET walls = (SELECT COALESCE(SUM(area), 0) FROM derived_shape s WHERE s.project = d.project AND s.storey = d.storey AND s.kind = 'walls'), regions = (SELECT COALESCE(SUM(area), 0) FROM derived_shape s WHERE s.project = d.project AND s.storey = d.storey AND s.kind = 'regions'), columns = (SELECT COALESCE(SUM(s.columns), 0) FROM derived_shape s WHERE s.project = d.project AND s.storey = d.storey)");
        $this->addSql('ALTER TABLE project_change DROP INDEX IDX_57F3156A2FB3D0EE7D3656A4A393D2FB, ADD INDEX IDX_57F3156A2FB3D0EE7D3656A4A393D2FB6D6315CC (project, account, state, revision)');
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

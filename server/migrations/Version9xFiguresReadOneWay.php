<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;


/**
 * What was typed and can be read two ways is refused from here on: what was taken before says which way it was read. Shapes are derived
 * anew, as bodies that lie on each other count once.
 */
final class Version9xFiguresReadOneWay extends AbstractMigration
{
    private const TYPED = ['known_length' => ['text'], 'rectangle' => ['width', 'depth'], 'level_mark' => ['text'], 'boundary_leg' => ['length'], 'figure' => ['text']];

    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('DELETE FROM derived_shape');
        $this->addSql('DELETE FROM derived_storey');
        foreach (self::TYPED as $table => $columns) {
            foreach ($columns as $column) {
                if ('figure' !== $table) {
                    $this->addSql("UPDATE $table SET `$column` = CONCAT(TRIM(`$column`), ' mm') WHERE unit = 'mm' AND `$column` REGEXP '^ *-? *[0-9]{1,3}[.][0-9]{3} *$'");
                }
                $this->addSql("UPDATE $table SET `$column` = REGEXP_REPLACE(`$column`, '^( *[0-9]+)-([0-9]+/)', '\\\\1 \\\\2') WHERE `$column` REGEXP '^ *[0-9]+-[0-9]+/'");
            }
        }
    }

    public function down(Schema $schema): void
    {
        $this->throwIrreversibleMigrationException();
    }
}

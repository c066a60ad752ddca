<?php

declare(strict_types=1);

namespace Plinth\Server\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;


/** What the ink of a drawing was found to show, waiting to be accepted. */
final class Version6Ink extends AbstractMigration
{
    public function getDescription(): string
    {
        return '';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE finding (basis VARCHAR(40) NOT NULL, state VARCHAR(10) NOT NULL, done DOUBLE PRECISION NOT NULL, message VARCHAR(200) NOT NULL, found JSON NOT NULL, refused JSON NOT NULL, drawing BINARY(16) NOT NULL, kind VARCHAR(7) NOT NULL, PRIMARY KEY (drawing, kind)) DEFAULT CHARACTER SET utf8mb4 COLLATE `utf8mb4_unicode_ci`');
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\RowId;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Attribute\Option;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Uid\Uuid;

#[AsCommand('plinth:pictures:remake', 'Has missing pictures of pages made again from their source files, as after a restore; with --all those that are there too.')]
final readonly class RemakePictures
{
    public function __construct(private Connection $connection, private FileStore $files, private Pictures $pictures)
    {
    }

    public function __invoke(OutputInterface $output, #[Option] bool $all = false): int
    {
        $asked = 0;
        foreach ($this->connection->iterateNumeric('SELECT project, id FROM page ORDER BY project, id') as [$project, $id]) {
            $page = new RowId(Uuid::fromBinary(\is_string($project) ? $project : ''), Uuid::fromBinary(\is_string($id) ? $id : ''));
            if ($all) {
                $this->files->removeFolder($this->files->pageFolder($page));
            }
            if (!$this->files->hasPictures($page)) {
                $this->pictures->make($page);
                ++$asked;
            }
        }
        $output->writeln(\sprintf('The pictures of %d pages are being made.', $asked));

        return 0;
    }
}

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
        foreach ($this->connection->iterateNumeric(
            'SELECT project, id, pictures FROM page ORDER BY project, id',
        ) as [$project, $id, $pictures]) {
            $page = new RowId(Uuid::fromBinary(\is_string($project) ? $project : ''), Uuid::fromBinary(\is_string($id) ? $id : ''));
            if ($all) {
                array_map(fn (string $version) => $this->files->forgetPictures($page, $version), $this->files->versions($page));
            }
            if (null === $this->files->pictures($page, \is_string($pictures) ? $pictures : '')) {
                $this->pictures->make($page);
                ++$asked;
            }
        }
        $output->writeln(\sprintf('The pictures of %d pages are being made.', $asked));

        return 0;
    }
}

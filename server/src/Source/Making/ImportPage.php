<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Doctrine\DBAL\Connection;
use Plinth\Core\Ink\Reading\Title;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Job\AskedFor;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Failed;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Job\Lane;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\Reading\Budget;
use Plinth\Server\Source\Reading\Format;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/**
 * Brings a page to the board. Writes into a folder of this attempt's own and puts it into the store at the end; a page that was removed
 * and comes back finds its pictures still there.
 */
final readonly class ImportPage implements AskedFor
{
    private const TIDY = ['upright.v', 'space.v', 'flat.v', 'colour.v'];
    private const MADE = 'made.json';
    /** One budget for the whole page: s, and pixels that a further second is allowed for. */
    private const BUDGET = 90.0;
    private const PIXELS_A_SECOND = 1_000_000.0;
    /** parts of the work that are done when the preview is there, and when the tiles are begun */
    private const SHOWN = 0.1;
    private const DECODED = 0.3;

    /** @param iterable<OncePageIsMade> $once */
    public function __construct(
        private Connection $connection,
        private FileStore $files,
        private PageMaker $maker,
        private Jobs $jobs,
        #[AutowireIterator(OncePageIsMade::class)] private iterable $once,
    ) {
    }

    public static function name(): string
    {
        return 'import-page';
    }

    public static function lane(): Lane
    {
        return Lane::Slow;
    }

    public function basis(RowId $about): string
    {
        return null === $this->page($about) ? throw Refusal::notFound() : '';
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $id = $job->about;
        $row = $this->page($id);
        if (null === $row) {
            return; // taken back meanwhile
        }
        [$width, $height] = [(int) Raw::number($row['width']), (int) Raw::number($row['height'])];
        foreach ($this->files->versions($id) as $version) {
            $folder = $this->files->pictures($id, $version);
            $kept = null === $folder ? false : @file_get_contents($folder.'/'.self::MADE);
            if (false !== $kept) {
                $attempt->write(fn () => $this->ready($id, $version, $kept, $row));

                return;
            }
        }
        $hash = Raw::text($row['sha256']);
        $source = $this->files->source($hash) ?? throw Failed::because($this->files->isDamaged($hash)
            ? 'The file itself is damaged in the store of files: it is not what was brought in. Restore it from a copy, or bring it in again.'
            : 'The file itself is not in the store of source files. Bring it in again, or restore the store from its copy.');
        $work = $this->files->workFolder();
        try {
            $onLook = new Budget($attempt, self::BUDGET + $width * $height / self::PIXELS_A_SECOND);
            $onLook(0.0);
            $total = self::tiles($width, $height);
            $made = $this->maker->make(
                $source, Format::from(Raw::text($row['media_type'])), (int) Raw::number($row['number']), $width, $height, Raw::optional($row['resolution']), $work, $onLook,
                function () use ($attempt, $id, $work, $onLook): void {
                    $attempt->write(function () use ($id, $work): void {
                        $this->files->keepPreview($id, $work.'/preview.jpg');
                        $this->set($id, ['has_preview' => 1]);
                    });
                    $onLook(self::SHOWN);
                },
                static fn () => $onLook(self::DECODED + (1.0 - self::DECODED) * min(1.0, self::count($work.'/tiles') / $total)),
            );
            $json = self::finish($work, $made);
            $attempt->write(fn () => $this->ready($id, $this->files->keepPictures($id, $work), $json, $row));
            $this->files->forgetPreview($id);
        } finally {
            $this->files->removeFolder($work);
        }
    }

    /** @return array<string, mixed>|null the page with its source */
    private function page(RowId $id): ?array
    {
        $row = $this->connection->fetchAssociative(
            'SELECT p.width, p.height, p.number, p.resolution, p.replaces, p.registration, p.made, s.sha256, s.media_type, s.name FROM page p JOIN source s ON s.project = p.project AND s.id = p.source WHERE p.project = ? AND p.id = ?',
            $id->binary(),
        );

        return false === $row ? null : $row;
    }

    /** @param array<string, mixed> $made */
    private static function finish(string $work, array $made): string
    {
        foreach (self::TIDY as $file) {
            @unlink("$work/$file");
        }
        $json = json_encode(['bytes' => self::bytes($work)] + $made, \JSON_THROW_ON_ERROR);
        file_put_contents("$work/".self::MADE, $json);

        return $json;
    }

    /** @param array<string, mixed> $row */
    private function ready(RowId $id, string $pictures, string $made, array $row): void
    {
        $named = Title::ofName(Raw::text($row['name']));
        [$about, $before] = array_map(static fn (string $json): array => (array) json_decode($json, true), [$made, Raw::text($row['made'])]);
        $this->set($id, [
            'has_preview' => 1,
            'tile_suffix' => Raw::text($about['tileSuffix'] ?? ''),
            'pictures' => $pictures,
            // Its writing is read the same way up, however often its pictures are made.
            'made' => json_encode(
                $about + ['named' => null === $named ? null : TitlesTold::one($named)] + array_intersect_key($before, ['wayUp' => null, 'titles' => null]),
                \JSON_THROW_ON_ERROR,
            ),
        ]);
        $this->jobs->ask(FindSkew::class, $id);
        if (null !== $row['replaces'] && '' === $row['registration']) {
            $this->jobs->ask(MatchPages::class, $id);
        }
        foreach ($this->once as $told) {
            $told->made($id);
        }
    }

    /** Tiles of the whole pyramid, which halves until one tile holds the page. */
    public static function tiles(int $width, int $height): int
    {
        $total = 0;
        do {
            $count = (int) (ceil($width / PageMaker::TILE) * ceil($height / PageMaker::TILE));
            $total += $count;
            $width = intdiv($width + 1, 2);
            $height = intdiv($height + 1, 2);
        } while ($count > 1);

        return $total;
    }

    /** @return int tiles in a pyramid that is being written */
    public static function count(string $folder): int
    {
        $count = 0;
        foreach (self::filesIn($folder) as $file) {
            $count += \in_array($file->getExtension(), ['png', 'jpg'], true) ? 1 : 0;
        }

        return $count;
    }

    private static function bytes(string $folder): int
    {
        $sum = 0;
        foreach (self::filesIn($folder) as $file) {
            $sum += (int) $file->getSize();
        }

        return $sum;
    }

    /** @return iterable<\SplFileInfo> */
    private static function filesIn(string $folder): iterable
    {
        if (!is_dir($folder)) {
            return;
        }
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS)) as $file) {
            if ($file instanceof \SplFileInfo) {
                yield $file;
            }
        }
    }

    /** @param array<string, scalar> $values */
    private function set(RowId $id, array $values): void
    {
        $this->connection->update('page', $values, ['project' => $id->project->toBinary(), 'id' => $id->id->toBinary()]);
    }
}

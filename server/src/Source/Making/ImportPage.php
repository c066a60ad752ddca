<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\RowId;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\JobKind;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Job\Lane;
use Plinth\Server\Job\TryAgain;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\PageState;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\PictureFailure;

/**
 * Brings a page to the board. Writes into a folder of this attempt's own and puts it into the store at the end; a page that was removed
 * and comes back finds its pictures still there.
 */
final readonly class ImportPage implements JobKind
{
    private const TIDY = ['upright.v', 'space.v', 'flat.v', 'colour.v'];
    private const MADE = 'made.json';
    /** s between looks at the database while a child works */
    private const LOOK = 0.3;
    /** One budget for the whole page, whatever its steps take of it: s, and pixels that a further second is allowed for. */
    private const BUDGET = 90.0;
    private const PIXELS_A_SECOND = 1_000_000.0;

    public function __construct(private Connection $connection, private FileStore $files, private PageMaker $maker, private RegisterPage $register, private Jobs $jobs)
    {
    }

    public static function name(): string
    {
        return 'import-page';
    }

    public static function lane(): Lane
    {
        return Lane::Slow;
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $id = $job->about;
        $row = $this->connection->fetchAssociative('SELECT p.width, p.height, p.number, p.resolution, p.state, p.replaces, s.sha256, s.media_type FROM page p JOIN source s ON s.project = p.project AND s.id = p.source WHERE p.project = ? AND p.id = ?', $id->binary());
        if (false === $row || !\is_string($row['sha256']) || !\is_string($row['media_type']) || !is_numeric($row['width']) || !is_numeric($row['height']) || !is_numeric($row['number']) || PageState::Stopped->value === $row['state']) {
            return; // taken back meanwhile, or stopped
        }
        foreach ($this->files->versions($id) as $version) {
            $folder = $this->files->pictures($id, $version);
            $kept = null === $folder ? false : @file_get_contents($folder.'/'.self::MADE);
            if (false !== $kept) {
                $attempt->write(fn () => $this->ready($id, $version, $kept, (int) $row['width'], (int) $row['height']));
                $this->registerIfNewer($id, $row['replaces'], $attempt);

                return;
            }
        }
        $source = $this->files->source($row['sha256']);
        if (null === $source) {
            $words = $this->files->isDamaged($row['sha256'])
                ? 'The file itself is damaged in the store of files: it is not what was brought in. Restore it from a copy, or bring it in again.'
                : 'The file itself is not in the store of source files. Bring it in again, or restore the store from its copy.';
            $attempt->write(fn () => $this->fail($id, $words));

            return;
        }
        $work = $this->files->workFolder();
        try {
            $attempt->write(fn () => $this->set($id, ['state' => PageState::Working->value, 'tiles_done' => 0, 'tiles_total' => self::tiles((int) $row['width'], (int) $row['height']), 'message' => '']));
            $made = $this->maker->make(
                $source, Format::from($row['media_type']), (int) $row['number'], (int) $row['width'], (int) $row['height'],
                is_numeric($row['resolution']) ? (float) $row['resolution'] : null, $work, $this->mayGoOn($id, $attempt, self::BUDGET + (float) $row['width'] * (float) $row['height'] / self::PIXELS_A_SECOND),
                fn () => $attempt->write(function () use ($id, $work): void {
                    $this->files->keepPreview($id, $work.'/preview.jpg');
                    $this->set($id, ['has_preview' => 1]);
                }),
                $this->countingTiles($id, $work),
            );
            $json = self::finish($work, $made);
            $attempt->write(function () use ($id, $work, $json, $row): void {
                $this->ready($id, $this->files->keepPictures($id, $work), $json, (int) $row['width'], (int) $row['height']);
            });
            $this->files->forgetPreview($id);
            $this->registerIfNewer($id, $row['replaces'], $attempt);
        } catch (PictureFailure $e) {
            if ($e->mayTryAgain) {
                throw TryAgain::after($e->getMessage());
            }
            if (!$e->wasStopped) {
                $attempt->write(fn () => $this->fail($id, $e->getMessage()));
            }
        } finally {
            $this->files->removeFolder($work);
        }
    }

    public function giveUp(Job $job, string $words): void
    {
        $this->fail($job->about, $words);
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

    private function ready(RowId $id, string $pictures, string $made, int $width, int $height): void
    {
        $about = json_decode($made, true);
        $total = self::tiles($width, $height);
        $this->connection->executeStatement(
            'UPDATE page SET state = ?, has_preview = 1, tiles_total = ?, tiles_done = ?, tile_suffix = ?, pictures = ?, made = ?, message = ? WHERE project = ? AND id = ? AND state <> ?',
            [PageState::Ready->value, $total, $total, \is_array($about) && \is_string($about['tileSuffix'] ?? null) ? $about['tileSuffix'] : '', $pictures, $made, '', ...$id->binary(), PageState::Stopped->value],
        );
        $this->jobs->ask(FindSkew::class, $id);
    }

    private function fail(RowId $id, string $words): void
    {
        $this->set($id, ['state' => PageState::Failed->value, 'message' => mb_substr($words, 0, 400)]);
    }

    private function registerIfNewer(RowId $id, mixed $replaces, Attempt $attempt): void
    {
        if (\is_string($replaces)) {
            $this->register->run($id, [], $attempt);
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

    /** @return callable(): bool */
    private function mayGoOn(RowId $id, Attempt $attempt, float $budget): callable
    {
        $last = 0.0;
        $until = microtime(true) + $budget;

        return function () use ($id, $attempt, $budget, $until, &$last): bool {
            $attempt->goesOn();
            if (microtime(true) > $until) {
                throw PictureFailure::tooLong($budget);
            }
            if (microtime(true) - $last < self::LOOK) {
                return true;
            }
            $last = microtime(true);

            return PageState::Working->value === $this->connection->fetchOne('SELECT state FROM page WHERE project = ? AND id = ?', $id->binary());
        };
    }

    /** @return callable(): void */
    private function countingTiles(RowId $id, string $work): callable
    {
        $last = 0.0;

        return function () use ($id, $work, &$last): void {
            if (microtime(true) - $last >= self::LOOK && is_dir($work.'/tiles')) {
                $last = microtime(true);
                $this->set($id, ['tiles_done' => self::count($work.'/tiles')]);
            }
        };
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

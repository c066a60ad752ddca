<?php

declare(strict_types=1);

namespace Plinth\Server\Fit\Rectify;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\Rectified;
use Plinth\Server\Change\RowId;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\JobKind;
use Plinth\Server\Job\Lane;
use Plinth\Server\Job\TryAgain;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\Making\ImportPage;
use Plinth\Server\Source\Making\PageMaker;
use Plinth\Server\Source\Making\PictureHeader;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\PageState;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\PictureFailure;
use Plinth\Server\Source\Reading\PictureTool;
use Plinth\Server\Source\Source;

/**
 * Straightens a photograph: the core says on a coarse grid where each pixel comes from, and the picture tool fills in between and
 * fetches them. The original stays as it is.
 */
final readonly class RectifyDrawing implements JobKind
{
    private const STEP = 16;
    private const SECONDS = 240.0;
    /** for the whole picture, s */
    private const BUDGET = 240.0;
    private const LOOK = 0.2;
    /** A straightened picture takes no more pixels than this, whatever the page. */
    private const MOST_PIXELS = 6e7;
    private const LEAST_PIXELS = 4e6;
    /** parts of the work that are done when the picture is decoded, and when its pixels are fetched */
    private const DECODED = 0.15;
    private const FETCHED = 0.45;

    public function __construct(private EntityManagerInterface $entities, private Connection $connection, private FileStore $files, private PictureTool $tool)
    {
    }

    public static function name(): string
    {
        return 'rectify-drawing';
    }

    public static function lane(): Lane
    {
        return Lane::Slow;
    }

    public function giveUp(Job $job, string $words): void
    {
        $this->fail($job->about, $job->text('shape'), $words);
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $id = $job->about;
        $wanted = $job->text('shape');
        $picture = $this->entities->find(RectifiedPicture::class, $id->criteria());
        $drawing = $this->entities->find(Drawing::class, $id->criteria());
        $fit = $this->entities->find(DrawingFit::class, $id->criteria());
        if (null === $picture || null === $drawing || null === $fit || $picture->shape !== $wanted || RectifiedPicture::shapeOf($drawing, $fit) !== $wanted) {
            return; // another shape is asked for by now
        }
        if (1 !== $this->connection->executeStatement('UPDATE rectified_picture SET state = ?, done = 0 WHERE project = ? AND id = ? AND shape = ? AND state IN (?, ?)', [PageState::Working->value, ...$id->binary(), $wanted, PageState::Waiting->value, PageState::Working->value])
            && PageState::Working->value !== $this->connection->fetchOne('SELECT state FROM rectified_picture WHERE project = ? AND id = ? AND shape = ?', [...$id->binary(), $wanted])) {
            return;
        }
        $page = $this->entities->find(Page::class, $drawing->beside($drawing->page())->criteria()) ?? throw new \LogicException('A drawing has a page.');
        $work = $this->files->workFolder();
        try {
            $rectified = Rectified::of($fit->pixelToMm(), $drawing->box(), max(self::LEAST_PIXELS, min(self::MOST_PIXELS, 1.5 * $drawing->box()->area())));
            $this->make($rectified, $page, $work, $this->mayGoOn($id, $wanted, $attempt), function (float $done) use ($id): void {
                $this->connection->update('rectified_picture', ['done' => $done], ['project' => $id->project->toBinary(), 'id' => $id->id->toBinary()]);
            });
            $map = $fit->pixelToMm();
            $corner = $rectified->toMm->toMm(new PixelPoint(0.0, 0.0));
            $attempt->write(function () use ($rectified, $map, $corner, $work, $id, $wanted): void {
                $this->files->keepStraightened($id, $wanted, $work);
                $this->connection->executeStatement('UPDATE rectified_picture SET state = ?, done = 1, width = ?, height = ?, made = ? WHERE project = ? AND id = ? AND shape = ?', [
                    PageState::Ready->value, $rectified->width, $rectified->height,
                    json_encode([
                        'map' => $map->matrix(), 'lens' => null === $map->lens ? null : [$map->lens->k, $map->lens->centre->x, $map->lens->centre->y],
                        'left' => $corner->x, 'top' => $corner->y, 'mmPerPixel' => $rectified->toMm->mmPerPixelAt(new PixelPoint(0.0, 0.0)),
                    ], \JSON_THROW_ON_ERROR), ...$id->binary(), $wanted,
                ]);
            });
        } catch (PictureFailure $e) {
            if ($e->mayTryAgain) {
                throw TryAgain::after($e->getMessage());
            }
            if (!$e->wasStopped) {
                $attempt->write(fn () => $this->fail($id, $wanted, $e->getMessage()));
            }
        } finally {
            $this->files->removeFolder($work);
        }
    }

    private function fail(RowId $id, string $shape, string $words): void
    {
        $this->connection->executeStatement('UPDATE rectified_picture SET state = ?, message = ? WHERE project = ? AND id = ? AND shape = ?', [PageState::Failed->value, mb_substr($words, 0, 200), ...$id->binary(), $shape]);
    }

    /**
     * @param callable(): bool $mayGoOn
     * @param callable(float): void $onProgress
     *
     * @throws PictureFailure
     */
    private function make(Rectified $rectified, Page $page, string $work, callable $mayGoOn, callable $onProgress): void
    {
        $source = $this->entities->find(Source::class, $page->beside($page->source())->criteria()) ?? throw new \LogicException('A page has a source.');
        $folder = $this->files->pictures($page->key(), $page->pictures()) ?? throw PictureFailure::missing();
        $grey = $folder.'/'.PageMaker::GREY;
        $run = fn (string $program, string ...$more): string => $this->tool->run([$program, ...array_values($more)], self::SECONDS, [$grey], $work, $mayGoOn);
        [$columns, $rows, $grid] = $rectified->grid(self::STEP);
        file_put_contents($work.'/grid.raw', $grid);
        $run('vips', 'rawload', $work.'/grid.raw', $work.'/grid.v', (string) $columns, (string) $rows, '2', '--format', 'float');
        $run('vips', 'affine', $work.'/grid.v', $work.'/index.v', self::STEP.' 0 0 '.self::STEP, '--interpolate', 'bilinear', '--oarea', \sprintf('0 0 %d %d', $rectified->width, $rectified->height));
        $upright = $this->decoded($page, $source, $grey, $work, $run, $mayGoOn);
        $onProgress(self::DECODED);
        $run('vips', 'mapim', $upright, $work.'/straight.v', $work.'/index.v', '--interpolate', 'bilinear', '--extend', 'background', '--background', '255');
        $onProgress(self::FETCHED);
        $bands = PictureHeader::of($work.'/straight.v')->bands;
        $total = ImportPage::tiles($rectified->width, $rectified->height);
        $last = microtime(true);
        $this->tool->run(
            ['vips', 'dzsave', $work.'/straight.v', $work.'/tiles', '--layout', 'google', '--suffix', 1 === $bands ? '.png[compression=6]' : '.jpg[Q=86]', '--tile-size', (string) PageMaker::TILE, '--overlap', '0', '--background', '255', '--skip-blanks=-1'],
            self::SECONDS, [], $work,
            static function () use ($mayGoOn, $onProgress, $work, $total, &$last): bool {
                if (microtime(true) - $last >= self::LOOK) {
                    $last = microtime(true);
                    $onProgress(self::FETCHED + (1.0 - self::FETCHED) * min(1.0, ImportPage::count($work.'/tiles') / $total));
                }

                return $mayGoOn();
            },
        );
        file_put_contents($work.'/suffix', 1 === $bands ? '.png' : '.jpg');
        foreach (['grid.raw', 'grid.v', 'index.v', 'straight.v', 'upright.v', 'space.v', 'flat.v'] as $file) {
            @unlink($work.'/'.$file);
        }
    }

    /**
     * The page's pixels, eight-bit grey or colour: in colour from the source where that is a picture, else the grey values at hand.
     *
     * @param callable(string, string...): string $run
     * @param callable(): bool $mayGoOn
     */
    private function decoded(Page $page, Source $source, string $grey, string $work, callable $run, callable $mayGoOn): string
    {
        $format = $source->format();
        if ('.png' === $page->tileSuffix() || \in_array($format, [Format::Pdf, Format::Svg, Format::Dxf], true)) {
            return $grey;
        }
        $picture = $work.'/upright.v';
        $file = $this->files->source($source->sha256()) ?? throw PictureFailure::missing();
        $this->tool->run(['vips', 'autorot', $file.(Format::Tiff === $format ? \sprintf('[page=%d]', $page->number() - 1) : ''), $picture], self::SECONDS, [$file], $work, $mayGoOn, trusts: !$format->isTrusted());
        if (!PictureHeader::of($picture)->is(PictureHeader::COLOUR)) {
            $run('vips', 'colourspace', $picture, $work.'/space.v', 'srgb');
            $picture = $work.'/space.v';
        }
        if (3 !== PictureHeader::of($picture)->bands) {
            $run('vips', 'flatten', $picture, $work.'/flat.v', '--background', '255');
            $picture = $work.'/flat.v';
        }

        return $picture;
    }

    /** @return callable(): bool */
    private function mayGoOn(RowId $id, string $shape, Attempt $attempt): callable
    {
        $last = 0.0;
        $until = microtime(true) + self::BUDGET;

        return function () use ($id, $shape, $attempt, $until, &$last): bool {
            $attempt->goesOn();
            if (microtime(true) > $until) {
                throw PictureFailure::tooLong(self::BUDGET);
            }
            if (microtime(true) - $last < self::LOOK) {
                return true;
            }
            $last = microtime(true);

            return PageState::Working->value === $this->connection->fetchOne('SELECT state FROM rectified_picture WHERE project = ? AND id = ? AND shape = ?', [...$id->binary(), $shape]);
        };
    }
}

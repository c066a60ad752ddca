<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Rectify;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\Rectified;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\Making\ImportPageHandler;
use Plinth\Server\Source\Making\PageMaker;
use Plinth\Server\Source\Making\PictureHeader;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\PageState;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\PictureFailure;
use Plinth\Server\Source\Reading\PictureTool;
use Plinth\Server\Source\Source;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;

/**
 * Straightens a photograph: the core says on a coarse grid where each pixel comes from, and the picture tool fills in between and
 * fetches them. The original stays as it is.
 */
#[AsMessageHandler]
final readonly class RectifyDrawingHandler
{
    private const STEP = 16;
    private const SECONDS = 600.0;
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

    public function __invoke(RectifyDrawing $message): void
    {
        $this->entities->clear();
        $id = Uuid::fromString($message->drawing);
        $picture = $this->entities->find(RectifiedPicture::class, $id);
        $drawing = $this->entities->find(Drawing::class, $id);
        $fit = $this->entities->find(DrawingFit::class, $id);
        if (null === $picture || null === $drawing || null === $fit || $picture->shape !== $message->shape || RectifiedPicture::shapeOf($drawing, $fit) !== $message->shape) {
            return; // another shape is asked for by now
        }
        if (1 !== $this->connection->executeStatement('UPDATE rectified_picture SET state = ?, done = 0 WHERE id = ? AND shape = ? AND state = ?', [PageState::Working->value, $id->toBinary(), $message->shape, PageState::Waiting->value])) {
            return;
        }
        $page = $this->entities->find(Page::class, $drawing->page()) ?? throw new \LogicException('A drawing has a page.');
        $folder = $this->files->pageFolder($page->id());
        $work = $folder.'/'.$picture->folder().'.part';
        $this->files->removeFolder($work);
        @mkdir($work, 0o755, true);
        try {
            $rectified = Rectified::of($fit->pixelToMm(), $drawing->box(), max(self::LEAST_PIXELS, min(self::MOST_PIXELS, 1.5 * $drawing->box()->area())));
            $this->make($rectified, $page, $work, $this->mayGoOn($id, $message->shape), function (float $done) use ($id): void {
                $this->connection->update('rectified_picture', ['done' => $done], ['id' => $id->toBinary()]);
            });
            $this->removeOlder($folder, $id, $picture->folder());
            rename($work, $folder.'/'.$picture->folder());
            $map = $fit->pixelToMm();
            $corner = $rectified->toMm->toMm(new PixelPoint(0.0, 0.0));
            $this->connection->executeStatement('UPDATE rectified_picture SET state = ?, done = 1, width = ?, height = ?, made = ? WHERE id = ? AND shape = ?', [
                PageState::Ready->value, $rectified->width, $rectified->height,
                json_encode([
                    'map' => $map->matrix(), 'lens' => null === $map->lens ? null : [$map->lens->k, $map->lens->centre->x, $map->lens->centre->y],
                    'left' => $corner->x, 'top' => $corner->y, 'mmPerPixel' => $rectified->toMm->mmPerPixelAt(new PixelPoint(0.0, 0.0)),
                ], \JSON_THROW_ON_ERROR), $id->toBinary(), $message->shape,
            ]);
        } catch (PictureFailure $e) {
            if (!$e->wasStopped) {
                $this->connection->executeStatement('UPDATE rectified_picture SET state = ?, message = ? WHERE id = ? AND shape = ?', [PageState::Failed->value, mb_substr($e->getMessage(), 0, 200), $id->toBinary(), $message->shape]);
            }
        } finally {
            $this->files->removeFolder($work);
        }
    }

    /**
     * @param callable(): bool $mayGoOn
     * @param callable(float): void $onProgress
     *
     * @throws PictureFailure
     */
    private function make(Rectified $rectified, Page $page, string $work, callable $mayGoOn, callable $onProgress): void
    {
        $source = $this->entities->find(Source::class, $page->source()) ?? throw new \LogicException('A page has a source.');
        $grey = $this->files->pageFolder($page->id()).'/'.PageMaker::GREY;
        $reads = [$grey, $this->files->sourcePath($source->sha256())];
        $run = fn (string $program, string ...$more): string => $this->tool->run([$program, ...array_values($more)], self::SECONDS, $reads, $work, $mayGoOn);
        [$columns, $rows, $grid] = $rectified->grid(self::STEP);
        file_put_contents($work.'/grid.raw', $grid);
        $run('vips', 'rawload', $work.'/grid.raw', $work.'/grid.v', (string) $columns, (string) $rows, '2', '--format', 'float');
        $run('vips', 'affine', $work.'/grid.v', $work.'/index.v', self::STEP.' 0 0 '.self::STEP, '--interpolate', 'bilinear', '--oarea', \sprintf('0 0 %d %d', $rectified->width, $rectified->height));
        $upright = $this->decoded($page, $source, $grey, $work, $run);
        $onProgress(self::DECODED);
        $run('vips', 'mapim', $upright, $work.'/straight.v', $work.'/index.v', '--interpolate', 'bilinear', '--extend', 'background', '--background', '255');
        $onProgress(self::FETCHED);
        $bands = PictureHeader::of($work.'/straight.v')->bands;
        $total = ImportPageHandler::tiles($rectified->width, $rectified->height);
        $last = microtime(true);
        $this->tool->run(
            ['vips', 'dzsave', $work.'/straight.v', $work.'/tiles', '--layout', 'google', '--suffix', 1 === $bands ? '.png[compression=6]' : '.jpg[Q=86]', '--tile-size', (string) PageMaker::TILE, '--overlap', '0', '--background', '255', '--skip-blanks=-1'],
            self::SECONDS, [], $work,
            static function () use ($mayGoOn, $onProgress, $work, $total, &$last): bool {
                if (microtime(true) - $last >= self::LOOK) {
                    $last = microtime(true);
                    $onProgress(self::FETCHED + (1.0 - self::FETCHED) * min(1.0, ImportPageHandler::count($work.'/tiles') / $total));
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
     */
    private function decoded(Page $page, Source $source, string $grey, string $work, callable $run): string
    {
        $format = $source->format();
        if ('.png' === $page->tileSuffix() || \in_array($format, [Format::Pdf, Format::Svg, Format::Dxf], true)) {
            return $grey;
        }
        $picture = $work.'/upright.v';
        $run('vips', 'autorot', $this->files->sourcePath($source->sha256()).(Format::Tiff === $format ? \sprintf('[page=%d]', $page->number() - 1) : ''), $picture);
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

    private function removeOlder(string $folder, Uuid $drawing, string $keep): void
    {
        $all = glob($folder.'/rectified-'.$drawing->toRfc4122().'-*');
        foreach (false === $all ? [] : $all as $older) {
            if (basename($older) !== $keep && !str_ends_with($older, '.part')) {
                $this->files->removeFolder($older);
            }
        }
    }

    /** @return callable(): bool */
    private function mayGoOn(Uuid $id, string $shape): callable
    {
        $last = 0.0;

        return function () use ($id, $shape, &$last): bool {
            if (microtime(true) - $last < self::LOOK) {
                return true;
            }
            $last = microtime(true);

            return PageState::Working->value === $this->connection->fetchOne('SELECT state FROM rectified_picture WHERE id = ? AND shape = ?', [$id->toBinary(), $shape]);
        };
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Server\Fit\Rectify;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\Rectified;
use Plinth\Server\Change\RowId;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Job\AskedFor;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Lane;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\Making\ImportPage;
use Plinth\Server\Source\Making\PageMaker;
use Plinth\Server\Source\Making\PictureHeader;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\Reading\Budget;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\PictureFailure;
use Plinth\Server\Source\Reading\PictureTool;
use Plinth\Server\Source\Source;

/**
 * Straightens a photograph: the core says on a coarse grid where each pixel comes from, and the picture tool fills in between and
 * fetches them. The original stays as it is.
 */
final readonly class RectifyDrawing implements AskedFor
{
    private const STEP = 16;
    private const SECONDS = 240.0;
    /** for the whole picture, s */
    private const BUDGET = 240.0;
    /** A straightened picture takes no more pixels than this, whatever the page. */
    private const MOST_PIXELS = 6e7;
    private const LEAST_PIXELS = 4e6;
    /** parts of the work that are done when the picture is decoded, and when its pixels are fetched */
    private const DECODED = 0.15;
    private const FETCHED = 0.45;

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private FileStore $files,
        private PictureTool $tool,
    ) {
    }

    public static function name(): string
    {
        return 'rectify-drawing';
    }

    public static function lane(): Lane
    {
        return Lane::Slow;
    }

    public function basis(RowId $about): string
    {
        return $this->slanted($about)[2];
    }

    /**
     * @return array{Drawing, DrawingFit, string} a drawing whose fit has perspective, and the shape of its straightened picture
     *
     * @throws Refusal where there is none
     */
    public function slanted(RowId $about): array
    {
        $drawing = $this->entities->find(Drawing::class, $about->criteria());
        $fit = $this->entities->find(DrawingFit::class, $about->criteria());
        if (null === $drawing || null === $fit) {
            throw Refusal::notFound();
        }
        if (!$fit->isSlanted()) {
            throw Refusal::conflict(
                'not-slanted',
                'This drawing’s fit has no perspective, so its picture needs no straightening.',
                'drawing',
            );
        }

        return [$drawing, $fit, RectifiedPicture::shapeOf($drawing, $fit)];
    }

    public function run(Job $job, Attempt $attempt): void
    {
        try {
            [$drawing, $fit, $shape] = $this->slanted($job->about);
        } catch (Refusal) {
            return; // there is nothing to straighten any more
        }
        if ($shape !== $job->basis) {
            return; // another shape is asked for by now
        }
        $page = $this->entities->find(
            Page::class,
            $drawing->beside($drawing->page())->criteria(),
        ) ?? throw new \LogicException('A drawing has a page.');
        $work = $this->files->workFolder();
        try {
            $map = $fit->pixelToMm();
            $rectified = Rectified::of(
                $map,
                $drawing->box(),
                max(self::LEAST_PIXELS, min(self::MOST_PIXELS, 1.5 * $drawing->box()->area())),
            );
            $this->make($rectified, $page, $work, new Budget($attempt, self::BUDGET));
            $corner = $rectified->toMm->toMm(new PixelPoint(0.0, 0.0));
            $made = json_encode([
                'map' => $map->matrix(), 'lens' => null === $map->lens ? null : [
                    $map->lens->k,
                    $map->lens->centre->x,
                    $map->lens->centre->y,
                ],
                'left' => $corner->x, 'top' => $corner->y, 'mmPerPixel' => $rectified->toMm->mmPerPixelAt(new PixelPoint(0.0, 0.0)),
            ], \JSON_THROW_ON_ERROR);
            $attempt->write(function () use ($rectified, $made, $work, $job, $shape): void {
                $this->files->keepStraightened($job->about, $shape, $work);
                $this->connection->executeStatement(
                    'INSERT INTO rectified_picture (project, id, shape, width, height, made) VALUES (?, ?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE shape = VALUES(shape), width = VALUES(width), height = VALUES(height), made = VALUES(made)',
                    [...$job->about->binary(), $shape, $rectified->width, $rectified->height, $made],
                );
            });
        } finally {
            $this->files->removeFolder($work);
        }
    }

    /** @throws PictureFailure */
    private function make(Rectified $rectified, Page $page, string $work, Budget $onLook): void
    {
        $source = $this->entities->find(
            Source::class,
            $page->beside($page->source())->criteria(),
        ) ?? throw new \LogicException('A page has a source.');
        $folder = $this->files->pictures($page->key(), $page->pictures()) ?? throw PictureFailure::missing();
        $grey = $folder.'/'.PageMaker::GREY;
        $run = fn (string $program, string ...$more): string => $this->tool->run(
            [$program, ...array_values($more)],
            self::SECONDS,
            [$grey],
            $work,
            $onLook,
        );
        [$columns, $rows, $grid] = $rectified->grid(self::STEP);
        file_put_contents($work.'/grid.raw', $grid);
        $run('vips', 'rawload', $work.'/grid.raw', $work.'/grid.v', (string) $columns, (string) $rows, '2', '--format', 'float');
        $run(
            'vips',
            'affine',
            $work.'/grid.v',
            $work.'/index.v',
            self::STEP.' 0 0 '.self::STEP,
            '--interpolate',
            'bilinear',
            '--oarea',
            \sprintf('0 0 %d %d', $rectified->width, $rectified->height),
        );
        $upright = $this->decoded($page, $source, $grey, $work, $run, $onLook);
        $onLook(self::DECODED);
        $run(
            'vips',
            'mapim',
            $upright,
            $work.'/straight.v',
            $work.'/index.v',
            '--interpolate',
            'bilinear',
            '--extend',
            'background',
            '--background',
            '255',
        );
        $onLook(self::FETCHED);
        $bands = PictureHeader::of($work.'/straight.v')->bands;
        $total = ImportPage::tiles($rectified->width, $rectified->height);
        $this->tool->run(
            [
                'vips',
                'dzsave',
                $work.'/straight.v',
                $work.'/tiles',
                '--layout',
                'google',
                '--suffix',
                1 === $bands ? '.png[compression=6]' : '.jpg[Q=86]',
                '--tile-size',
                (string) PageMaker::TILE,
                '--overlap',
                '0',
                '--background',
                '255',
                '--skip-blanks=-1',
            ],
            self::SECONDS, [], $work, static fn () => $onLook(
                self::FETCHED + (1.0 - self::FETCHED) * min(1.0, ImportPage::count($work.'/tiles') / $total),
            ),
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
    private function decoded(Page $page, Source $source, string $grey, string $work, callable $run, Budget $onLook): string
    {
        $format = $source->format();
        if ('.png' === $page->tileSuffix() || \in_array($format, [Format::Pdf, Format::Svg, Format::Dxf], true)) {
            return $grey;
        }
        $picture = $work.'/upright.v';
        $file = $this->files->source($source->sha256()) ?? throw PictureFailure::missing();
        $this->tool->run(
            ['vips', 'autorot', $file.(Format::Tiff === $format ? \sprintf('[page=%d]', $page->number() - 1) : ''), $picture],
            self::SECONDS,
            [$file],
            $work,
            $onLook,
            trusts: !$format->isTrusted(),
        );
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
}

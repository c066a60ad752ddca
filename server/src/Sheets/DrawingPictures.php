<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Sheets\InkPicture;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Fit\Rectify\RectifiedPicture;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\Making\PageMaker;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\Reading\PictureTool;

/** Pictures of drawings as they lie under lines or stand by themselves on a sheet: fetched in the sandbox, as fine as they are printed. */
final readonly class DrawingPictures
{
    private const SECONDS = 30.0;
    /** px along the longer side: A1 at 200 dpi */
    private const MOST_PX = 6600.0;

    public function __construct(private EntityManagerInterface $entities, private FileStore $files, private PictureTool $tool)
    {
    }

    /**
     * A drawing where it lies on its storey or side, in grey.
     *
     * @param float $dpi of the paper that it is printed on
     * @param float $scale 1 : so much
     *
     * @return InkPicture|null mm of the plan; null where it is not trued up, or is still being read or straightened
     */
    public function under(Drawing $drawing, float $dpi, float $scale): ?InkPicture
    {
        $fit = $this->entities->find(DrawingFit::class, $drawing->key()->criteria());
        if (null === $fit || $fit->isSlanted()) {
            return null === $fit ? null : $this->straightened($drawing, $fit, $dpi, $scale);
        }
        $box = $drawing->box();
        $map = $fit->pixelToMm();
        $corner = static fn (float $x, float $y): array => $map->toMm(new PixelPoint($x, $y))->toArray();
        [$origin, $right, $down] = [$corner($box->left, $box->top), $corner($box->right(), $box->top), $corner($box->left, $box->bottom())];
        $mm = hypot($right[0] - $origin[0], $right[1] - $origin[1]);
        $wanted = $mm / $scale / 25.4 * $dpi;
        $bytes = $this->fetched($drawing, PageMaker::GREY, $wanted / $box->width);

        return null === $bytes ? null : new InkPicture(
            $bytes,
            'image/jpeg',
            $origin,
            [$right[0] - $origin[0], $right[1] - $origin[1]],
            [$down[0] - $origin[0], $down[1] - $origin[1]],
        );
    }

    /** A photograph as it was straightened for its present fit, joined from its tiles, no finer than is printed. */
    private function straightened(Drawing $drawing, DrawingFit $fit, float $dpi, float $scale): ?InkPicture
    {
        $made = $this->entities->find(RectifiedPicture::class, $drawing->key()->criteria());
        $shape = RectifiedPicture::shapeOf($drawing, $fit);
        $tiles = null === $made || $made->shape !== $shape ? null : $this->files->straightened($drawing->key(), $shape);
        if (null === $made || null === $tiles) {
            return null;
        }
        [$a, $b, $x, $d, $e, $y] = $made->pixelToMm($fit->pixelToMm());
        [$right, $down] = [[$a * $made->width, $d * $made->width], [$b * $made->height, $e * $made->height]];
        $wanted = min(self::MOST_PX / max($made->width, $made->height), hypot(...$right) / $scale / 25.4 * $dpi / $made->width);
        // Each level of tiles is half as fine as the next: the coarsest that is fine enough.
        $finest = (int) ceil(log(max(1.0, max($made->width, $made->height) / PageMaker::TILE), 2.0));
        $halved = min($finest, max(0, (int) floor(-log($wanted, 2.0))));
        [$wide, $high] = array_map(static fn (int $px): int => (int) ceil($px / 2 ** $halved), [$made->width, $made->height]);
        $suffix = trim((string) @file_get_contents("$tiles/suffix"));
        [$columns, $rows] = [(int) ceil($wide / PageMaker::TILE), (int) ceil($high / PageMaker::TILE)];
        $folder = $this->files->workFolder();
        try {
            $joined = [];
            for ($k = 0; $k < $columns * $rows; ++$k) {
                // Under short names: a command takes only so many letters.
                $tile = \sprintf('%s/tiles/%d/%d/%d%s', $tiles, $finest - $halved, intdiv($k, $columns), $k % $columns, $suffix);
                if (!@copy($tile, $joined[] = "$folder/$k$suffix")) {
                    return null;
                }
            }
            $run = fn (string ...$command): string => $this->tool->run(['vips', ...array_values($command)], self::SECONDS, [], $folder);
            $run('arrayjoin', implode(' ', $joined), "$folder/joined.v", '--across', (string) $columns);
            $run('crop', "$folder/joined.v", "$folder/cut.v", '0', '0', (string) $wide, (string) $high);
            $run('jpegsave', "$folder/cut.v", "$folder/picture.jpg", '--Q', '85', '--strip');

            return new InkPicture((string) file_get_contents("$folder/picture.jpg"), 'image/jpeg', [$x, $y], $right, $down);
        } finally {
            $this->files->removeFolder($folder);
        }
    }

    /** A drawing or photograph by itself, as it was brought in; without anything on it while its page is still being read. */
    public function alone(Drawing $drawing): InkPicture
    {
        $box = $drawing->box();

        return new InkPicture($this->fetched($drawing, null, 1.0) ?? '', 'image/jpeg', [0.0, 0.0], [$box->width, 0.0], [0.0, $box->height]);
    }

    /**
     * @param string|null $file of the page's pictures; its preview without one
     * @param float $times as many pixels as the page has
     */
    private function fetched(Drawing $drawing, ?string $file, float $times): ?string
    {
        $page = $this->entities->find(Page::class, $drawing->beside($drawing->page())->criteria()) ?? throw Refusal::notFound();
        $pictures = $this->files->pictures($page->key(), $page->pictures());
        $from = null === $pictures ? null : $pictures.'/'.($file ?? 'preview.jpg');
        $from = null === $file ? $this->files->preview($page->key()) ?? $from : $from;
        if (null === $from || !is_file($from)) {
            return null;
        }
        $box = $drawing->box();
        $shrunk = null === $file ? PageMaker::PREVIEW / max($page->width(), $page->height()) : 1.0;
        $shrunk = min(1.0, $shrunk);
        $folder = $this->files->workFolder();
        try {
            $crop = array_map(static fn (float $v): string => (string) (int) floor($v), [
                $box->left * $shrunk, $box->top * $shrunk, max(1.0, $box->width * $shrunk), max(1.0, $box->height * $shrunk),
            ]);
            $this->tool->run(['vips', 'crop', $from, "$folder/cut.v", ...$crop], self::SECONDS, [$from], $folder);
            $most = self::MOST_PX / max((float) $crop[2], (float) $crop[3]);
            $resized = min(1.0, $times, $most);
            if ($resized < 0.95) {
                $this->tool->run(['vips', 'resize', "$folder/cut.v", "$folder/fine.v", (string) $resized], self::SECONDS, [], $folder);
            }
            $made = $resized < 0.95 ? "$folder/fine.v" : "$folder/cut.v";
            $this->tool->run(['vips', 'jpegsave', $made, "$folder/picture.jpg", '--Q', '85', '--strip'], self::SECONDS, [], $folder);

            return (string) file_get_contents("$folder/picture.jpg");
        } finally {
            $this->files->removeFolder($folder);
        }
    }
}

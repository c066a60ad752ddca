<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Plinth\Core\Ink\Pages\Sheet;
use Plinth\Core\Ink\Pages\Skew;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\JobKind;
use Plinth\Server\Job\Lane;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Source\Reading\PictureTool;

/** Finds how far the drawings of a page are turned on it, once the page can be worked on, and keeps it with what the import found. */
final readonly class FindSkew implements JobKind
{
    private const SECONDS = 120.0;

    public function __construct(private MadeOfPage $made, private FileStore $files, private PictureTool $tool)
    {
    }

    public static function name(): string
    {
        return 'find-skew';
    }

    public static function lane(): Lane
    {
        return Lane::Quick;
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $pictures = $this->made->pictures($job->about);
        $folder = $this->files->pictures($job->about, $pictures);
        if (null === $folder) {
            return; // removed, or read anew meanwhile: that asks again
        }
        $grey = $folder.'/'.PageMaker::GREY;
        $head = PictureHeader::of($grey);
        $factor = max(1, intdiv(max($head->width, $head->height), Skew::SIDE));
        $work = $this->files->workFolder();
        $small = $work.'/small.v';
        try {
            if ($factor > 1) {
                $this->tool->run(
                    ['vips', 'shrink', $grey, $small, (string) $factor, (string) $factor],
                    self::SECONDS,
                    [$grey],
                    $work,
                    $attempt->goesOn(...),
                );
            }
            $raster = PageMaker::raster($factor > 1 ? $small : $grey);
            $skew = Skew::of($raster, $attempt->goesOn(...));
            $attempt->goesOn();
            $focal = true === $skew?->leaning?->isSlanted() ? Sheet::in($raster)?->focal($raster->width, $raster->height) : null;
        } finally {
            $this->files->removeFolder($work);
        }
        $found = null === $skew ? null : [
            'degrees' => $skew->degrees, 'sigmaDegrees' => $skew->sigmaDegrees, 'confidence' => $skew->confidence,
            'leans' => $skew->leaning?->told(), 'focal' => $focal,
        ];
        $attempt->write(fn () => $this->made->keep($job->about, $pictures, ['skew' => $found]));
    }
}

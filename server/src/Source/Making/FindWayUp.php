<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Reading\Title;
use Plinth\Core\Ink\Reading\WayUp;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Job\AskedFor;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Lane;
use Plinth\Server\Source\InkOfPages;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\Reading\Recogniser;

/** Finds which way up a page is read and what its titles say, and keeps both with what the import found. */
final readonly class FindWayUp implements AskedFor
{
    /** what making the picture takes of the whole */
    private const PREPARED = 0.3;

    public function __construct(
        private MadeOfPage $made,
        private EntityManagerInterface $entities,
        private InkOfPages $ink,
        private Recogniser $recogniser,
    ) {
    }

    public static function name(): string
    {
        return 'find-way-up';
    }

    public static function lane(): Lane
    {
        return Lane::Slow;
    }

    public function basis(RowId $about): string
    {
        $page = $this->entities->find(Page::class, $about->criteria());

        return null === $page || '' === $page->pictures() ? throw Refusal::notFound() : $page->pictures();
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $page = $this->entities->find(Page::class, $job->about->criteria());
        $ink = null === $page ? null : $this->ink->of($page);
        if (null === $page || null === $ink) {
            return; // removed, or read anew meanwhile: that asks again
        }
        $read = [];
        $box = new PixelBox(0.0, 0.0, $page->width(), $page->height());
        foreach (WayUp::pictures($ink, $box, static fn (float $done) => $attempt->goesOn(self::PREPARED * $done)) as $turns => $picture) {
            $done = self::PREPARED + (1.0 - self::PREPARED) * $turns / 4.0;
            $read[$turns] = $this->recogniser->words($picture, static fn () => $attempt->goesOn($done));
        }
        $way = WayUp::of($read);
        $titles = null === $way ? [] : array_map(
            static fn (Title $t): Title => $t->onPage(static fn (array $onPicture): array => WayUp::onPage($onPicture, $way->turns, $box)),
            Title::in($read[$way->turns]),
        );
        $found = ['wayUp' => null === $way ? null : ['turns' => $way->turns, 'sure' => $way->isSure], 'titles' => TitlesTold::of($titles)];
        $attempt->write(fn () => $this->made->keep($job->about, $page->pictures(), $found));
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Core\Flow;

use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Ink\Pages\Skew;
use Plinth\Core\Ink\Reading\PageFigures;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Core\Ink\Reading\RoomNames;
use Plinth\Core\Ink\Reading\TextPicture;
use Plinth\Core\Ink\Walls\WallProposals;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\Storey;

/**
 * The whole way from a picture to rooms with nobody at hand: its figures read, sized and squared by them, straightened where it was
 * photographed, its walls found and laid, its rooms derived and named. What a designer would be asked is told in words instead.
 */
final readonly class Flow
{
    /**
     * @param PixelToMm|null $map the building as it is read, mm and +y up; null where the figures do not tell its size
     * @param DerivedStorey|null $derived what follows from the plan
     * @param list<string> $says what was not told, and what somebody should look at
     */
    private function __construct(
        public PageFigures $read,
        public ?SizedByFigures $size,
        public ?PixelToMm $map,
        public ?Storey $plan,
        public ?DerivedStorey $derived,
        public array $says,
    ) {
    }

    /**
     * @param PixelBox $box where the drawing lies on its page
     * @param float|null $paperMm that a pixel of the page is wide, where its resolution is known
     * @param callable(GreyRaster): list<ReadWord> $words a recogniser of words
     */
    public static function of(PageInk $page, PixelBox $box, ?float $paperMm, callable $words): self
    {
        $quiet = static function (float $done): void {};
        [$width, $height] = [$box->left + $box->width, $box->top + $box->height];
        $read = PageFigures::of($page, $box, $quiet);
        $says = null === $read->turns ? ['Which way up it is read was not sure: it is taken as it lies.'] : [];
        $paperMm ??= TextPicture::USUAL_PAPER_MM / max($width, $height);
        $skew = Skew::of($page->window((int) $box->left, (int) $box->top, (int) $box->width, (int) $box->height));
        $size = SizedByFigures::of($read, $skew?->leaning, $box, $width, $height, $paperMm);
        if (null === $size) {
            return new self($read, null, null, null, null, [
                \sprintf('%d of its figures agree, too few along both axes to tell how large it is.', \count($read->sure())), ...$says,
            ]);
        }
        foreach ($size->heldOut as $figure) {
            $says[] = $figure->text.' disagrees with the other figures and was held out.';
        }
        if (!$size->fit->holds) {
            $says[] = 'Its figures disagree by more than they were drawn and rounded.';
        }
        $map = $size->fit->pixelToMm->turned(($read->turns ?? 0) * \M_PI_2, new Point(0.0, 0.0));
        $found = WallProposals::in($page, $box, $map, $quiet);
        $doubtful = \count($found->worthALook()->walls) - \count($found->sure()->walls);
        if ($doubtful > 0) {
            $says[] = \sprintf('%d more of what may be walls %s left for a look.', $doubtful, 1 === $doubtful ? 'is' : 'are');
        }
        $text = TextPicture::of($page, $box, $map, $map->mmPerPixelAt($box->centre()) / $paperMm, $quiet);
        $names = RoomNames::of($text, $words($text->level), $words($text->turned()));
        $sure = $found->sure();
        $plan = ProposedStorey::of($sure->walls, $sure->openings, $sure->columns, $names);

        return new self($read, $size, $map, $plan, Derivation::of($plan), $says);
    }
}

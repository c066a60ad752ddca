<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Picks\JointCount;
use Plinth\Core\Ink\Picks\PickRefinement;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** What the ink of a page shows at a place. */
#[Route('/api/projects/{project}/pages/{id}')]
final readonly class InkController
{
    /** so far off the way that is asked for a line may run */
    private const ALONG_DEGREES = 10.0;

    public function __construct(private ProjectAccess $access, private InkOfPages $ink)
    {
    }

    /** The corner, crossing, column, line or face near a pick. */
    #[Needs(Who::Reader)]
    #[Route('/found', methods: ['GET'])]
    public function found(Uuid $project, Uuid $id, Request $request): Response
    {
        $number = self::numbers($request);
        $scale = null === $request->query->get('mmPerPixel') ? null : max(1e-6, $number('mmPerPixel'));
        $page = $this->access->row(Page::class, $project, $id);
        [$ink, $pick, $reach] = [$this->inkOf($page), new PixelPoint($number('x'), $number('y')), $number('reach')];
        $found = null === $request->query->get('along')
            ? PickRefinement::near($ink, $pick, $reach, $scale, 'corners' === $request->query->get('only'), $page->isScene())
            : PickRefinement::lineNear($ink, $pick, $reach, $number('along'), self::ALONG_DEGREES, $scale, $page->isScene());

        return new JsonResponse(['found' => null === $found ? null : [
            'kind' => $found->kind->value, 'x' => $found->at->x, 'y' => $found->at->y, 'sigmaPx' => $found->sigmaPx, 'alongDegrees' => $found->alongDegrees, 'thicknessPx' => $found->thicknessPx,
        ]]);
    }

    /** Joints along a line, proposed as a count. */
    #[Needs(Who::Reader)]
    #[Route('/ticks', methods: ['GET'])]
    public function ticks(Uuid $project, Uuid $id, Request $request): Response
    {
        $number = self::numbers($request);
        $count = JointCount::along(
            $this->inkOf($this->access->row(Page::class, $project, $id)),
            new PixelPoint($number('ax'), $number('ay')),
            new PixelPoint($number('bx'), $number('by')),
        );

        return new JsonResponse(['count' => null === $count ? null : [
            'spaces' => $count->spaces, 'pitchPx' => $count->pitchPx, 'confidence' => $count->confidence, 'ticks' => array_map(
                static fn (PixelPoint $p): array => [$p->x, $p->y],
                $count->ticks,
            ),
        ]]);
    }

    private function inkOf(Page $page): InkOfPage
    {
        return $this->ink->of($page) ?? throw Refusal::conflict(
            'not-ready',
            'This page is still being read: its ink cannot be looked at yet.',
        );
    }

    /** @return callable(string): float reads a coordinate of the query */
    public static function numbers(Request $request): callable
    {
        return static function (string $name) use ($request): float {
            $text = $request->query->get($name);

            return JsonValue::of(is_numeric($text) && abs((float) $text) < 1e7 ? (float) $text : $text, $name)->number();
        };
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Server\Site;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Picks\TracedLine;
use Plinth\Core\Units\Bearing;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkController;
use Plinth\Server\Source\InkOfPages;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** Which way a leg runs by the ink, where only its length is written. */
final readonly class BearingController
{
    private const REACH_PX = 12.0;

    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private InkOfPages $ink)
    {
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/drawings/{id}/bearing', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id, Request $request): Response
    {
        $drawing = $this->access->row(Drawing::class, $project, $id);
        $number = InkController::numbers($request);
        $ink = $this->ink->of($drawing) ?? throw Refusal::conflict(
            'not-ready',
            'This page is still being read: its ink cannot be looked at yet.',
        );
        $map = ($this->entities->find(DrawingFit::class, $drawing->key()->criteria()) ?? throw Refusal::notFound())->pixelToMm();
        $a = new PixelPoint($number('ax'), $number('ay'));
        // at a site's scale a pen is as wide as a wall
        $line = TracedLine::between($ink, $a, new PixelPoint($number('bx'), $number('by')), self::REACH_PX, null);
        if (null === $line) {
            return new JsonResponse(['found' => null]);
        }
        [$from, $to] = [$map->toMm($line->a), $map->toMm($line->b)];
        $bearing = Bearing::along($to->x - $from->x, $to->y - $from->y)->turned($number('up'));

        return new JsonResponse(['found' => [
            'bearing' => $bearing->written(), 'degrees' => $bearing->degrees, 'plusMinusDegrees' => 2.0 * rad2deg(sqrt(2.0) * $line->sigmaPx / $line->a->distanceTo($line->b)),
            'a' => [$line->a->x, $line->a->y], 'b' => [$line->b->x, $line->b->y],
        ]]);
    }
}

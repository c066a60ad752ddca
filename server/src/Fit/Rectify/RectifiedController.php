<?php

declare(strict_types=1);

namespace Plinth\Server\Fit\Rectify;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Change\RowId;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\FileStore;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** The straightened picture of a drawing, and its tiles. */
#[Route('/api/projects/{project}/drawings/{id}/rectified')]
final readonly class RectifiedController
{
    public function __construct(
        private ProjectAccess $access,
        private EntityManagerInterface $entities,
        private FileStore $files,
        private RectifyDrawing $rectify,
    ) {
    }

    /** The picture for the present fit, where it is there. */
    #[Needs(Who::Reader)]
    #[Route('', methods: ['GET'])]
    public function show(Uuid $project, Uuid $id): Response
    {
        [$drawing, $fit, $shape] = $this->rectify->slanted(new RowId($project, $id));
        $picture = $this->entities->find(RectifiedPicture::class, $drawing->key()->criteria());
        $isThere = null !== $picture && $shape === $picture->shape && null !== $this->files->straightened($drawing->key(), $shape);

        return new JsonResponse(['shape' => $shape, 'picture' => !$isThere ? null : [
            'width' => $picture->width, 'height' => $picture->height, 'pixelToMm' => $picture->pixelToMm($fit->pixelToMm()),
        ]]);
    }

    #[Needs(Who::Reader)]
    #[Route('/{shape}/tiles/{z}/{y}/{x}', requirements: ['shape' => '[0-9a-f]{40}', 'z' => '\d{1,2}', 'x' => '\d{1,4}', 'y' => '\d{1,4}'], methods: ['GET'])]
    public function tile(Uuid $project, Uuid $id, string $shape, int $z, int $y, int $x): Response
    {
        $folder = $this->files->straightened($this->access->row(Drawing::class, $project, $id)->key(), $shape) ?? throw Refusal::notFound();
        $suffix = trim((string) @file_get_contents("$folder/suffix"));

        return $this->files->served(
            \sprintf('%s/tiles/%d/%d/%d%s', $folder, $z, $y, $x, $suffix),
            '.png' === $suffix ? 'image/png' : 'image/jpeg',
        );
    }
}

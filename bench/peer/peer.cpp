// The native peer of `npm run bench` and of the reference tests: CGAL's Surface_mesh_parameterization and Eigen's
// SimplicialLLT, on files written by peer.ts. Prints seconds of the work alone, without reading and writing.
#include <CGAL/Simple_cartesian.h>
#include <CGAL/Surface_mesh.h>
#include <CGAL/Surface_mesh_parameterization/ARAP_parameterizer_3.h>
#include <CGAL/Surface_mesh_parameterization/LSCM_parameterizer_3.h>
#include <CGAL/Surface_mesh_parameterization/Two_vertices_parameterizer_3.h>
#include <CGAL/Surface_mesh_parameterization/parameterize.h>
#include <CGAL/Polygon_mesh_processing/measure.h>
#include <CGAL/boost/graph/IO/OBJ.h>
#include <Eigen/Sparse>
#include <chrono>
#include <cstdlib>
#include <cstdint>
#include <fstream>
#include <iostream>
#include <string>
#include <vector>

namespace SMP = CGAL::Surface_mesh_parameterization;
using Kernel = CGAL::Simple_cartesian<double>;
using Mesh = CGAL::Surface_mesh<Kernel::Point_3>;
using Vertex = boost::graph_traits<Mesh>::vertex_descriptor;
using Halfedge = boost::graph_traits<Mesh>::halfedge_descriptor;
using Clock = std::chrono::steady_clock;

static double since(Clock::time_point start) {
  return std::chrono::duration<double>(Clock::now() - start).count();
}

template <class T> static std::vector<T> readAll(std::ifstream& in, size_t count) {
  std::vector<T> list(count);
  in.read(reinterpret_cast<char*>(list.data()), count * sizeof(T));
  return list;
}

// A mesh as binary: counts, positions, triangles.
static Mesh readMesh(const std::string& path) {
  std::ifstream in(path, std::ios::binary);
  const auto counts = readAll<uint32_t>(in, 2);
  const auto positions = readAll<double>(in, 3 * counts[0]);
  const auto triangles = readAll<uint32_t>(in, 3 * counts[1]);
  Mesh mesh;
  mesh.reserve(counts[0], 3 * counts[1], counts[1]);
  for (size_t v = 0; v < counts[0]; v++)
    mesh.add_vertex({positions[3 * v], positions[3 * v + 1], positions[3 * v + 2]});
  for (size_t t = 0; t < counts[1]; t++)
    mesh.add_face(Vertex(triangles[3 * t]), Vertex(triangles[3 * t + 1]), Vertex(triangles[3 * t + 2]));
  return mesh;
}

template <class Parameterizer> static double flatten(Mesh& mesh, Parameterizer parameterizer, const std::string& out) {
  auto uv = mesh.add_property_map<Vertex, Kernel::Point_2>("v:uv").first;
  Halfedge border;
  double longest = 0;
  std::vector<bool> seen(mesh.num_halfedges());
  for (Halfedge h : mesh.halfedges()) {
    if (!mesh.is_border(h) || seen[h]) continue;
    double length = 0;
    for (Halfedge g : CGAL::halfedges_around_face(h, mesh)) {
      seen[g] = true;
      length += 1;
    }
    if (length > longest) longest = length, border = h;
  }
  const auto start = Clock::now();
  const auto status = SMP::parameterize(mesh, parameterizer, border, uv);
  const double seconds = since(start);
  if (status != SMP::OK) {
    std::cerr << "CGAL: " << SMP::get_error_message(status) << "\n";
    std::exit(3);
  }
  std::ofstream file(out, std::ios::binary);
  for (Vertex v : mesh.vertices()) {
    const double pair[2] = {uv[v].x(), uv[v].y()};
    file.write(reinterpret_cast<const char*>(pair), sizeof pair);
  }
  return seconds;
}

using Ldlt = CGAL::Eigen_solver_traits<Eigen::SimplicialLDLT<CGAL::Eigen_sparse_symmetric_matrix<double>::EigenType>>;
using Lu = CGAL::Eigen_solver_traits<
    Eigen::SparseLU<CGAL::Eigen_sparse_matrix<double>::EigenType, Eigen::COLAMDOrdering<int>>>;
using Bicgstab = CGAL::Eigen_solver_traits<
    Eigen::BiCGSTAB<CGAL::Eigen_sparse_matrix<double>::EigenType, Eigen::IncompleteLUT<double>>>;
using Border = SMP::Two_vertices_parameterizer_3<Mesh>;

template <class Solver> static double lscm(const std::string& in, uint32_t a, uint32_t b, const std::string& out) {
  Mesh mesh = readMesh(in);
  return flatten(mesh, SMP::LSCM_parameterizer_3<Mesh, Border, Solver>(Border(Vertex(a), Vertex(b))), out);
}

template <class Solver> static double arap(const std::string& in, unsigned iterations, const std::string& out) {
  Mesh mesh = readMesh(in);
  using Arap = SMP::ARAP_parameterizer_3<Mesh, SMP::Two_vertices_parameterizer_3<Mesh>, Solver>;
  return flatten(mesh, Arap(SMP::Two_vertices_parameterizer_3<Mesh>(), Solver(), 0, iterations, 0), out);
}

// Reads an OBJ file and writes it again. Prints seconds of either.
static void obj(const std::string& in, const std::string& out) {
  Mesh mesh;
  const auto start = Clock::now();
  if (!CGAL::IO::read_OBJ(in, mesh)) std::exit(3);
  std::cout << since(start) << " ";
  const auto again = Clock::now();
  if (!CGAL::IO::write_OBJ(out, mesh)) std::exit(3);
  std::cout << since(again) << "\n";
}

// A lower triangle by columns, as binary: size, entries, columnStart, row, values. Prints analysis, then factorisation.
static void llt(const std::string& path) {
  std::ifstream in(path, std::ios::binary);
  const auto counts = readAll<uint32_t>(in, 2);
  const auto start = readAll<int32_t>(in, counts[0] + 1);
  const auto row = readAll<int32_t>(in, counts[1]);
  const auto values = readAll<double>(in, counts[1]);
  const Eigen::SparseMatrix<double> matrix = Eigen::Map<const Eigen::SparseMatrix<double>>(
      counts[0], counts[0], counts[1], start.data(), row.data(), values.data());
  Eigen::SimplicialLLT<Eigen::SparseMatrix<double>, Eigen::Lower> solver;
  const auto begin = Clock::now();
  solver.analyzePattern(matrix);
  std::cout << since(begin) << " ";
  double best = 1e9;
  for (int k = 0; k < 3 && (k == 0 || best < 5); k++) {
    const auto again = Clock::now();
    solver.factorize(matrix);
    best = std::min(best, since(again));
  }
  std::cout << best << "\n";
}

int main(int argc, char** argv) {
  const std::string work = argc > 2 ? argv[1] : "";
  if (work == "lscm-ldlt") std::cout << lscm<Ldlt>(argv[2], std::stoul(argv[3]), std::stoul(argv[4]), argv[5]) << "\n";
  else if (work == "lscm-lu") std::cout << lscm<Lu>(argv[2], std::stoul(argv[3]), std::stoul(argv[4]), argv[5]) << "\n";
  else if (work == "lscm-bicgstab") std::cout << lscm<Bicgstab>(argv[2], std::stoul(argv[3]), std::stoul(argv[4]), argv[5]) << "\n";
  else if (work == "arap-lu") std::cout << arap<Lu>(argv[2], std::stoul(argv[3]), argv[4]) << "\n";
  else if (work == "arap-bicgstab") std::cout << arap<Bicgstab>(argv[2], std::stoul(argv[3]), argv[4]) << "\n";
  else if (work == "llt") llt(argv[2]);
  else if (work == "obj") obj(argv[2], argv[3]);
  else {
    std::cerr << "usage: peer lscm-ldlt|lscm-lu|lscm-bicgstab IN A B OUT | arap-lu|arap-bicgstab IN ITERATIONS OUT | llt IN | obj IN OUT\n";
    return 2;
  }
  return 0;
}
